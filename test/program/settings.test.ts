import { describe, expect, it } from "vitest";
import { bundled } from "../support/bundled.js";
import { contractWith, okay } from "../support/smallContract.js";
import { restProject, type TemporaryProject } from "../support/temporaryProject.js";

const ref = { $ref: "#/components/schemas/Stay" };
const contract = contractWith(
  {
    Stay: {
      type: "object",
      required: ["id", "since", "price", "state"],
      properties: {
        id: { type: "integer", format: "int64" },
        since: { type: "string", format: "date-time" },
        day: { type: "string", format: "date" },
        price: { type: "string", format: "money" },
        state: { type: "string", enum: ["booked", "there"] },
        next: ref,
        log: { type: "array", items: { type: "string", format: "date-time" } },
      },
    },
  },
  {
    "/stays": {
      post: {
        operationId: "addStay",
        parameters: [
          { name: "from", in: "query", required: true, schema: { type: "string", format: "date-time" } },
          { name: "after", in: "query", schema: { type: "integer", format: "int64" } },
        ],
        requestBody: { required: true, content: { "application/json": { schema: ref } } },
        responses: { ...okay(ref), 409: { description: "taken", content: { "application/json": { schema: ref } } } },
      },
    },
  },
);

const money = `export interface Money { readonly cents: number }
export const moneyFromText = (text: string): Money => ({ cents: Math.round(Number(text) * 100) });
export const moneyToText = (money: Money): string => (money.cents / 100).toFixed(2);
`;

function projectWith(settings: string): TemporaryProject {
  return restProject(JSON.stringify(contract), {
    "src/money.ts": money,
    "rhema.yaml": `contracts: { api: { from: api.yaml } }\nsdks:\n  app:\n    language: typescript\n    covers: [api]\n    into: src/sdk\n    settings: ${settings}\n`,
  });
}

interface Sdk {
  connectApi: (options: object) => unknown;
  addStay: (connection: unknown, args: object) => Promise<Record<string, unknown>>;
}

const sdkOf = (project: TemporaryProject): Promise<Sdk> => bundled<Sdk>(project, "src/sdk/api/index.ts");

const sent =
  '{"id":9223372036854775807,"since":"2026-05-01T12:00:00.000Z","day":"2026-05-01","price":"12.50","state":"booked","next":{"id":7,"since":"2026-05-02T12:00:00.000Z","price":"1.00","state":"there","log":["2026-05-03T12:00:00.000Z"]}}';

describe("settings for types in the app", () => {
  it("decode responses and failures and encode arguments, with all digits", async () => {
    const project = projectWith(
      "{ dates: decoded, int64: bigint, choices: open, formats: { money: { type: Money, from: src/money.js, decode: moneyFromText, encode: moneyToText } } }",
    );
    expect((await project.run(["generate"])).code).toBe(0);
    expect(project.compileAndLint()).toEqual([]);
    const shapes = project.read("src/sdk/api/shapes.ts");
    expect(shapes).toContain("since: Date;");
    expect(shapes).toContain("day?: string;");
    expect(shapes).toContain("price: formats.Money;");
    expect(shapes).toContain('export type StayState = "booked" | "there" | (string & Record<never, never>);');
    const { connectApi, addStay } = await sdkOf(project);
    const seen: { url: string; body: string }[] = [];
    let status = 200;
    const fetch = (url: string, { body }: { body: string }): Promise<Response> => {
      seen.push({ url, body });
      return Promise.resolve(new Response(sent, { status }));
    };
    const api = connectApi({ baseUrl: "https://ostrel.example", fetch });
    const stay = {
      id: 9223372036854775807n,
      since: new Date("2026-05-01T12:00:00Z"),
      day: "2026-05-01",
      price: { cents: 1250 },
      state: "booked",
      next: {
        id: 7n,
        since: new Date("2026-05-02T12:00:00Z"),
        price: { cents: 100 },
        state: "there",
        log: [new Date("2026-05-03T12:00:00Z")],
      },
    };
    const args = { from: new Date("2026-05-01T00:00:00Z"), after: 9007199254740993n, body: stay };
    expect(await addStay(api, args)).toEqual(stay);
    expect(seen).toEqual([
      { url: "https://ostrel.example/stays?from=2026-05-01T00%3A00%3A00.000Z&after=9007199254740993", body: sent },
    ]);
    status = 409;
    await expect(addStay(api, args)).rejects.toMatchObject({ status: 409, body: stay });
  });

  it("int64 as a string", async () => {
    const project = projectWith("{ int64: text }");
    await project.run(["generate"]);
    expect(project.compile()).toBe("");
    const { connectApi, addStay } = await sdkOf(project);
    let body = "";
    const fetch = (_url: string, options: { body: string }): Promise<Response> => {
      body = options.body;
      return Promise.resolve(new Response(sent));
    };
    const answer = await addStay(connectApi({ baseUrl: "https://ostrel.example", fetch }), {
      from: "2026",
      body: { id: "9223372036854775807" },
    });
    expect([answer["id"], body]).toEqual(["9223372036854775807", '{"id":9223372036854775807}']);
  });

  it("responses are verified against the contract, with the path of the first mismatch", async () => {
    const project = projectWith("{ verify: answers, dates: decoded }");
    expect((await project.run(["generate"])).code).toBe(0);
    expect(project.compileAndLint()).toEqual([]);
    const { connectApi, addStay } = await sdkOf(project);
    const call = (body: string) =>
      addStay(connectApi({ baseUrl: "https://ostrel.example", fetch: () => Promise.resolve(new Response(body)) }), {
        from: new Date(0),
        body: {},
      });
    expect(await call(sent)).toMatchObject({ since: new Date("2026-05-01T12:00:00Z"), day: "2026-05-01" });
    await expect(call(sent.replace('"there"', '"sunk"'))).rejects.toMatchObject({
      status: "malformed",
      message: 'api.addStay: the response (200) cannot be read: /next/state must be "booked" or "there"',
      cause: { path: "/next/state" },
    });
    await expect(call("[]")).rejects.toMatchObject({ cause: { path: "", expected: "an object" } });
  });

  it.each(["bigint", "text"])(
    "int64 as %s works with counted pages, and a call may have the name of a conversion",
    async (int64) => {
      const page = { name: "page", in: "query", schema: { type: "integer", format: "int64" } };
      const list = { type: "array", items: ref };
      const { schemas } = contract["components"] as { schemas: Record<string, unknown> };
      const clashing = contractWith(schemas, {
        "/a": { get: { operationId: "convertStay", responses: okay(ref) } },
        "/b": { get: { operationId: "listStays", parameters: [page], responses: okay(list) } },
      });
      const project = projectWith(`{ dates: decoded, int64: ${int64} }`);
      project.write("api.yaml", JSON.stringify(clashing));
      expect((await project.run(["generate"])).code).toBe(0);
      expect(project.compile()).toBe("");
      expect(project.read("src/sdk/api/grouped.ts")).toContain("listStaysItems");
    },
  );

  it("unknown values are refused", async () => {
    const { code, err } = await projectWith(
      "{ dates: moment, formats: { money: { type: 'a b', from: x, decode: y, encode: z } } }",
    ).run(["generate"]);
    expect(code).toBe(2);
    expect(err).toContain("`dates` cannot be");
    expect(err).toContain("config.invalid");
  });
});
