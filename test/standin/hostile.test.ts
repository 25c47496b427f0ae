import { buildSchema } from "graphql";
import { describe, expect, it } from "vitest";
import type { GraphqlContract } from "../../src/core/contract/model.js";
import { readContract } from "../../src/core/readContract.js";
import { LimitedExpression } from "../../src/standin/samples/limitedExpression.js";
import { createStandin } from "../../src/standin/standin.js";
import { contractWith, okay } from "../support/smallContract.js";

function playing(data: object) {
  const text = JSON.stringify(data);
  const { contract, problems } = readContract("api", [{ document: "api.json", text }]);
  if (!contract) throw new Error(problems[0]?.message);
  return createStandin([{ contract, schema: undefined, raw: data }], { seed: 1, eventEveryMs: 5 });
}

const answering = (schema: object, more: object = {}) =>
  contractWith({}, { "/thing": { get: { responses: okay(schema) } }, ...more });
/** The duration of an action in milliseconds. */
async function took(act: () => Promise<unknown>): Promise<number> {
  const startedAt = performance.now();
  await act();
  return performance.now() - startedAt;
}
/** Requests that would take minutes or gigabytes are handled in far less than this, on any machine. */
const soon = 10_000;

describe("patterns that take exponential time", () => {
  const patterns = [
    "^(a+)+$",
    "^(a|a)*$",
    "^(a*)*b$",
    "^(\\w+\\s?)*$",
    "a*a*a*a*a*a*a*c",
    "(x+x+)+y",
    "^(?=(a+)+$).*b$",
    "^(a+)+\\1$",
  ];
  const long = `${"a".repeat(40)}!`;

  it.each(patterns)("%s is stopped, in requests, responses and samples", async (pattern) => {
    const text = { type: "string", pattern };
    const body = {
      content: {
        "application/json": {
          schema: { type: "object", properties: { a: text }, patternProperties: { [pattern]: text } },
        },
      },
    };
    const app = playing(
      answering(text, {
        "/sent": {
          post: { requestBody: body, responses: okay({}) },
          get: { parameters: [{ name: "q", in: "query", schema: text }], responses: okay({}) },
        },
        "/example": {
          get: {
            responses: { 200: { description: "", content: { "application/json": { schema: text, example: long } } } },
          },
        },
      }),
    );
    const elapsed = await took(async () => {
      const texts = Array.from({ length: 20 }, (_, at) => [`${long}${String(at)}`, long] as const);
      const sent = JSON.stringify({ a: long, ...Object.fromEntries(texts) });
      const headers = { "content-type": "application/json" };
      for (const request of [
        app.request("/api/sent", { method: "POST", headers, body: sent }),
        app.request(`/api/sent?q=${long}`),
        app.request("/api/thing"),
        app.request("/api/example"),
      ])
        expect((await request).status).not.toBe(500);
    });
    expect(elapsed).toBeLessThan(soon);
  });

  it("are exact if they end in time, and stopped only for the strings that take too long", () => {
    const expression = new LimitedExpression("^(a+)+$", "u");
    expect(expression.test(`${"a".repeat(60)}!`)).toBe("slow");
    expect([expression.test("aaa"), expression.test("aab"), expression.test("")]).toEqual([true, false, false]);
    const polynomial = new LimitedExpression("^[a-z]+-[a-z]+-[a-z]+$");
    expect(polynomial.test(`${"a".repeat(2_000)}-b-c`)).toBe(true);
    expect(polynomial.test(`${"a".repeat(2_000)}-b`)).toBe(false);
    expect(new LimitedExpression("(\\d+)/(\\d+)").exec("12/7")?.slice(1)).toEqual(["12", "7"]);
    expect(() => new LimitedExpression("(")).toThrow(SyntaxError);
  });

  it("also as paths with many parameters in one part", async () => {
    const path = `/${Array.from({ length: 12 }, (_, at) => `{p${String(at)}}`).join("-")}x`;
    const parameters = Array.from({ length: 12 }, (_, at) => ({
      name: `p${String(at)}`,
      in: "path",
      required: true,
      schema: {},
    }));
    const app = playing(contractWith({}, { [path]: { get: { parameters, responses: okay({}) } } }));
    expect(await took(async () => app.request(`/api/${"-".repeat(3_000)}`))).toBeLessThan(soon);
    expect((await app.request(`/api/${"a-".repeat(11)}ax`)).status).toBe(200);
  });
});

describe("samples that would fill the memory", () => {
  const text = { type: "string" };
  const nested = (levels: number): object =>
    levels === 0 ? text : { type: "array", minItems: 1_000, items: nested(levels - 1) };
  const names = ["a", "b", "c", "d", "e", "f", "g", "h"];
  /** Records of records, twelve levels of eight fields each: 69 billion values. */
  const wide = Object.fromEntries(
    Array.from({ length: 12 }, (_, level) => {
      const inner = level === 0 ? text : { $ref: `#/components/schemas/L${String(level - 1)}` };
      const properties = Object.fromEntries(names.map((name) => [name, inner]));
      return [`L${String(level)}`, { type: "object", required: names, properties }];
    }),
  );
  it.each<[string, object]>([
    ["a list of a billion", { type: "array", minItems: 1_000_000_000, items: text }],
    ["lists of a thousand in each other", nested(4)],
    ["a text of a billion", { type: "string", minLength: 1_000_000_000 }],
    [
      "texts of a million in a list of a million",
      { type: "array", minItems: 1_000_000, items: { type: "string", minLength: 1_000_000 } },
    ],
    ["a pattern that repeats a billion times", { type: "string", pattern: "^[a-z]{1000000000}$" }],
    ["a pattern that repeats repeats", { type: "string", pattern: "^(((a{900}){900}){900}){900}$" }],
    ["records in each other without measure", { $ref: "#/components/schemas/L11" }],
    ["a map in maps", { type: "object", additionalProperties: nested(3) }],
  ])("%s", async (_name, schema) => {
    const app = playing({ ...answering(schema), components: { schemas: wide } });
    let size = 0;
    const elapsed = await took(async () => {
      const response = await app.request("/api/thing");
      expect(response.status).toBe(200);
      size = (await response.text()).length;
      expect((await app.request("/.play/state")).status).toBe(200);
    });
    expect(elapsed).toBeLessThan(soon);
    expect(size).toBeLessThan(5_000_000);
  });

  it("do not affect what follows a long list", async () => {
    const schema = {
      type: "object",
      required: ["many", "more", "name"],
      properties: { many: nested(3), more: nested(2), name: text },
    };
    const made = (await (await playing(answering(schema)).request("/api/thing")).json()) as Record<string, unknown[]>;
    expect([typeof made["name"], (made["more"]?.length ?? 0) > 0, (made["many"]?.length ?? 0) > 0]).toEqual([
      "string",
      true,
      true,
    ]);
  });

  it("as lists in lists of a schema, each with several items", async () => {
    const type = `${"[".repeat(60)}Int${"]".repeat(60)}`;
    const text = `type Query { deep: ${type}! ship: Ship } type Ship { id: ID! deep: ${type} }`;
    const schema = buildSchema(text);
    const { contract } = readContract("api", [{ document: "a.graphql", text }]);
    const app = createStandin([{ contract: contract as GraphqlContract, schema, raw: undefined }], {
      seed: 1,
      eventEveryMs: 5,
    });
    const elapsed = await took(async () => {
      const answered = await app.request("/api", {
        method: "POST",
        headers: { "content-type": "application/json", "rhema-play": "items=1000" },
        body: JSON.stringify({ query: "{ deep ship { deep } }" }),
      });
      expect((await answered.text()).length).toBeLessThan(1_000_000);
    });
    expect(elapsed).toBeLessThan(soon);
  });
});

describe("invalid headers", () => {
  it("are left out if the name is invalid, and escaped if the value is", async () => {
    const headers = {
      "x y": { schema: { type: "string" } },
      名前: { schema: { type: "string" } },
      "": { schema: { type: "string" } },
      "x-name": { schema: { type: "string", enum: ["日本\r\nx-owned: 1"] } },
    };
    const thing = { type: "object", required: ["id"], properties: { id: { type: "string" } } };
    const json = { "application/json": { schema: thing } };
    const app = playing(
      contractWith(
        {},
        {
          "/things": {
            post: {
              requestBody: { content: json },
              responses: { 201: { description: "", headers, content: json } },
            },
          },
          "/things/{id}": {
            get: {
              parameters: [{ name: "id", in: "path", required: true, schema: { type: "string" } }],
              responses: { 200: { description: "", content: { "application/日本+json": { schema: thing } } } },
            },
          },
        },
      ),
    );
    for (const id of ["日本", "a/b", "a b", "\ud800", "x\r\ny", "%", ".."]) {
      const made = await app.request("/api/things", {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ id }),
      });
      expect([id, made.status]).toEqual([id, 201]);
      expect(made.headers.get("x-name")).toBe("%E6%97%A5%E6%9C%AC%0D%0Ax-owned: 1");
      const location = made.headers.get("location") ?? "";
      expect(location).toMatch(/^[\x21-\x7e]+$/);
      if (id === "日本" || id === "a b") expect(await (await app.request(location)).json()).toMatchObject({ id });
    }
  });
});
