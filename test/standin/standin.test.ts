import { readFileSync } from "node:fs";
import { join } from "node:path";
import { buildSchema } from "graphql";
import { describe, expect, it } from "vitest";
import { load } from "js-yaml";
import { readContract } from "../../src/core/readContract.js";
import { contractValidator } from "../../src/standin/samples/ajvForContract.js";
import { createStandin } from "../../src/standin/standin.js";
import { contractWith, okay } from "../support/smallContract.js";
import { packageRoot } from "../support/packageRoot.js";

const demoText = (version: string, file: string) =>
  readFileSync(join(packageRoot, "demo/contracts", version, file), "utf8");

function standinOf(name: string, text: string, document: string, seed = 1) {
  const { contract, schema, problems } = readContract(name, [{ document, text }]);
  if (!contract) throw new Error(problems[0]?.message);
  return createStandin([{ contract, schema, raw: document.endsWith(".graphql") ? undefined : load(text) }], {
    seed,
    eventEveryMs: 5,
  });
}
const rest = (data: object, seed = 1) => standinOf("api", JSON.stringify(data), "api.json", seed);
const berths = (seed = 1) => standinOf("berths", demoText("v1", "berths.yaml"), "berths.yaml", seed);
const passages = (seed = 1) => standinOf("passages", demoText("v1", "passages.graphql"), "passages.graphql", seed);

describe("a served REST contract", () => {
  it("has a valid response for every operation of both demo versions", async () => {
    for (const version of ["v1", "v2"]) {
      const text = demoText(version, "berths.yaml");
      const raw = load(text);
      const { contract } = readContract("berths", [{ document: "b.yaml", text }]);
      if (contract?.protocol !== "rest") throw new Error("not REST");
      const validator = contractValidator(raw, contract.dialect, "answer");
      let checked = 0;
      for (let seed = 1; seed <= 12; seed++) {
        const app = standinOf("berths", text, "b.yaml", seed);
        for (const operation of contract.operations.filter((each) => !each.body)) {
          const path = operation.path
            .replace("{day}", "2026-05-01")
            .replace(/\{reservationId\}/, "0f4a7c1e-2b3d-4e5f-8a9b-0c1d2e3f4a5b")
            .replace(/\{\w+\}/g, "N-07");
          const query = operation.parameters.some((each) => each.name === "from") ? "?from=2026-05-01" : "";
          const response = await app.request(`/berths${path}${query}`, { method: operation.method.toUpperCase() });
          const declared = operation.responses.find((each) => each.status === String(response.status));
          expect(declared, `${operation.method} ${path} ${String(response.status)}`).toBeDefined();
          const [content] = declared?.contents ?? [];
          if (content?.form !== "json") continue;
          expect(validator.check(content.schema, await response.json(), false)).toEqual([]);
          checked++;
        }
      }
      expect(checked).toBeGreaterThan(80);
    }
  });

  it("is the same for the same seed and request, and differs for another", async () => {
    const get = async (app: ReturnType<typeof berths>, path: string) => (await app.request(path)).text();
    const path = "/berths/berths?pageSize=3";
    expect(await get(berths(), path)).toBe(await get(berths(), path));
    expect(await get(berths(), path)).not.toBe(await get(berths(2), path));
    expect(await get(berths(), path)).not.toBe(await get(berths(), "/berths/berths?pageSize=4"));
  });

  it("matches the request: ids from the path, fields from the body", async () => {
    expect(await (await berths().request("/berths/berths/S-99")).json()).toMatchObject({ id: "S-99" });
    const body = { vesselId: "v", arrival: "2026-07-01", departure: "2026-07-02", crew: 7 };
    const response = await berths().request("/berths/berths/S-99/reservations", {
      method: "POST",
      body: JSON.stringify(body),
      headers: { "content-type": "application/json" },
    });
    expect(response.status).toBe(201);
    expect(await response.json()).toMatchObject({ berthId: "S-99", arrival: "2026-07-01" });
  });

  it.each<[string, string, RequestInit, number, string]>([
    ["an unknown path", "/berths/berth", {}, 404, "The closest is /berths."],
    ["a wrong method", "/berths/berths", { method: "PUT" }, 405, "accepts GET, POST"],
    ["a parameter out of range", "/berths/berths?pageSize=900", {}, 400, "query parameter pageSize must be <= 100"],
    ["a parameter of the wrong type", "/berths/berths?pageSize=many", {}, 400, "pageSize must be integer"],
    [
      "a choice that is none",
      "/berths/berths?status=free&status=sunk",
      {},
      400,
      "must be equal to one of the allowed values: free, reserved, occupied, closed",
    ],
    ["an undeclared parameter", "/berths/berths?statu=free", {}, 400, "statu is not a parameter"],
    ["a missing parameter", "/berths/reservations", {}, 400, "query parameter from is required"],
    ["a date that is none", "/berths/tides/tomorrow", {}, 400, 'path parameter day must match format "date"'],
    ["a missing body", "/berths/vessels", { method: "POST" }, 400, "The body is required"],
    [
      "a body of another type",
      "/berths/vessels",
      { method: "POST", body: "x", headers: { "content-type": "text/plain" } },
      400,
      "media type text/plain",
    ],
    [
      "a body that is not JSON",
      "/berths/vessels",
      { method: "POST", body: "{", headers: { "content-type": "application/json" } },
      400,
      "not valid JSON",
    ],
    [
      "a body that does not fit its tag's schema",
      "/berths/vessels",
      { method: "POST", body: '{"kind":"sail","id":3}', headers: { "content-type": "application/json" } },
      400,
      "must have required property 'name'. The body must have required property 'length'. The body must have required property 'mastHeight'. The body /id must be string.",
    ],
    [
      "a body where none belongs",
      "/berths/berths/N-1",
      { method: "DELETE", body: "x" },
      400,
      "this operation has none",
    ],
  ])("refuses %s with a reason", async (_name, path, init, status, detail) => {
    const response = await berths().request(path, init);
    expect(response.status).toBe(status);
    expect(response.headers.get("content-type")).toBe("application/problem+json");
    expect(((await response.json()) as { detail: string }).detail).toContain(detail);
  });

  it("supports null and exclusive bounds of OpenAPI 3.0", async () => {
    const schema = {
      type: "object",
      properties: { a: { type: "integer", nullable: true, minimum: 1, exclusiveMinimum: true } },
    };
    const app = rest(
      contractWith(
        {},
        { "/a": { post: { requestBody: { content: { "application/json": { schema } } }, responses: okay(schema) } } },
        "3.0.3",
      ),
    );
    const post = async (a: unknown) =>
      (
        await app.request("/api/a", {
          method: "POST",
          body: JSON.stringify({ a }),
          headers: { "content-type": "application/json" },
        })
      ).status;
    expect([await post(null), await post(2), await post(1), await post("x")]).toEqual([200, 200, 400, 400]);
  });

  it("ends recursive data, and follows limits, tuples and constants", async () => {
    const app = rest(
      contractWith({
        Tree: {
          type: "object",
          required: ["kids", "pair", "code"],
          properties: {
            kids: { type: "array", items: { $ref: "#/components/schemas/Tree" } },
            pair: { type: "array", prefixItems: [{ const: 1 }, { type: "boolean" }], items: false },
            code: { type: "string", pattern: "^[A-Z]{2}\\d{3}$" },
          },
        },
        Step: { type: "integer", multipleOf: 5, minimum: 11, maximum: 16 },
      }),
    );
    const tree = (await (await app.request("/api/s/Tree")).json()) as { pair: unknown[]; code: string };
    expect(tree.pair[0]).toBe(1);
    expect(tree.code).toMatch(/^[A-Z]{2}\d{3}$/);
    expect(await (await app.request("/api/s/Step")).json()).toBe(15);
  });

  it("has no end before its start", async () => {
    const moments = {
      startsOn: "date",
      endsOn: "date",
      validFrom: "date-time",
      validUntil: "date-time",
      opensAt: "time",
      closesAt: "time",
      createdAt: "date-time",
      updated_at: "date-time",
      departure: "date",
      arrival: "date",
    };
    const properties = Object.fromEntries(
      Object.entries(moments).map(([name, format]) => [name, { type: "string", format }]),
    );
    const schema = { type: "object", required: Object.keys(moments), properties };
    const data = contractWith({ Stay: schema });
    const from =
      "scalar Day type Query { stays: [Stay!]! } type Stay { id: ID! firstDay: Day! checkIn: Day! checkOut: Day! arrivesOn: Day! departsOn: Day! }";
    for (let seed = 1; seed <= 25; seed++) {
      const stay = (await (await rest(data, seed).request("/api/s/Stay")).json()) as Record<
        keyof typeof moments,
        string
      >;
      expect(stay.endsOn > stay.startsOn, JSON.stringify(stay)).toBe(true);
      expect(stay.validUntil > stay.validFrom, JSON.stringify(stay)).toBe(true);
      expect(stay.closesAt > stay.opensAt, JSON.stringify(stay)).toBe(true);
      expect(stay.updated_at > stay.createdAt, JSON.stringify(stay)).toBe(true);
      // A journey. The other way round, it is a stay.
      expect(stay.arrival > stay.departure, JSON.stringify(stay)).toBe(true);
      const asked = await standinOf("stays", from, "stays.graphql", seed).request("/stays", {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ query: "{ stays { checkIn checkOut arrivesOn departsOn } }" }),
      });
      const { data: played } = (await asked.json()) as { data: { stays: Record<string, string>[] } };
      for (const { checkIn = "", checkOut = "", arrivesOn = "", departsOn = "" } of played.stays)
        expect([checkOut > checkIn, departsOn > arrivesOn]).toEqual([true, true]);
    }
  });

  it("allows any origin, and lists what is served", async () => {
    const preflight = await berths().request("/berths/berths", {
      method: "OPTIONS",
      headers: {
        origin: "http://app.test",
        "access-control-request-method": "POST",
        "access-control-request-headers": "authorization",
      },
    });
    expect([
      preflight.status,
      preflight.headers.get("access-control-allow-origin"),
      preflight.headers.get("access-control-allow-headers"),
    ]).toEqual([204, "http://app.test", "authorization"]);
    // Without the headers of a preflight it is a call, and this contract has no such one.
    expect((await berths().request("/berths/berths", { method: "OPTIONS" })).status).toBe(405);
    const headers = { origin: "http://app.test", cookie: "a=b" };
    const answer = await berths().request("/berths/berths", { headers });
    const exposed = answer.headers.get("access-control-expose-headers")?.split(", ") ?? [];
    // For requests with credentials, an asterisk has no effect.
    expect([answer.status, exposed.includes("content-type"), exposed.includes("*")]).toEqual([200, true, false]);
    expect([answer.headers.get("vary"), answer.headers.get("access-control-allow-credentials")]).toEqual([
      "Origin",
      "true",
    ]);
    expect(await (await berths().request("/")).json()).toEqual({
      playing: [{ contract: "berths", protocol: "rest", at: "/berths" }],
    });
    expect((await berths().request("/nothing")).status).toBe(404);
  });
});

describe("a served GraphQL schema", () => {
  const json = { "content-type": "application/json" };
  const ask = async (query: string, variables: object = {}, seed = 1, headers: Record<string, string> = {}) => {
    const response = await passages(seed).request("/passages", {
      method: "POST",
      body: JSON.stringify({ query, variables }),
      headers: { "content-type": "application/json", ...headers },
    });
    return {
      status: response.status,
      ...((await response.json()) as { data?: Record<string, unknown>; errors?: { message: string }[] }),
    };
  };

  it("responds to a query with the schema's types, the same for the same seed", async () => {
    const query =
      "{ voyages(first: 2) { totalCount edges { node { id status vessel { __typename name } } } pageInfo { hasNextPage } } }";
    const [one, two, other] = [await ask(query), await ask(query), await ask(query, {}, 7)];
    expect(one).toEqual(two);
    expect(one.data).not.toEqual(other.data);
    expect(one.errors).toBeUndefined();
    expect(one.data).toMatchObject({ voyages: { totalCount: 8, pageInfo: { hasNextPage: true } } });
  });

  it("returns the object with the requested id", async () => {
    expect((await ask('{ voyage(id: "v-1") { id } }')).data).toEqual({ voyage: { id: "v-1" } });
  });

  it.each([
    ["{ voyages { nope } }", "Cannot query field"],
    ["{ voyages(", "Syntax Error"],
    ["query Q($id: ID!) { voyage(id: $id) { id } }", "was not provided"],
    ["fragment F on Voyage { id }", "F"],
  ])("refuses %s: 200 as plain JSON, 400 if more is accepted", async (query, message) => {
    for (const [accept, status] of [
      ["application/json", 200],
      ["application/graphql-response+json, application/json;q=0.9", 400],
    ] as const) {
      const found = await ask(query, {}, 1, { accept });
      expect([found.status, found.errors?.[0]?.message.includes(message)]).toEqual([status, true]);
    }
  });

  it.each([
    [400, { method: "GET" }, "with POST"],
    [405, { method: "PUT" }, "with POST"],
    [415, { method: "POST", body: new Blob(["{}"]) }, "application/json"],
    [415, { method: "POST", body: "{}", headers: { "content-type": "text/plain" } }, "application/json"],
    [406, { method: "GET", headers: { accept: "image/png" } }, "JSON or events"],
    [400, { method: "POST", body: "{", headers: json }, "not valid JSON"],
    [400, { method: "POST", body: "[]", headers: json }, "`query`"],
    [400, { method: "POST", body: '{"query":"{ a }","variables":[]}', headers: json }, "`variables`"],
  ])("responds to %i with %j", async (status, init, message) => {
    const response = await passages().request("/passages", init);
    expect([response.status, (await response.text()).includes(message)]).toEqual([status, true]);
  });

  it("serves queries by GET, but not mutations", async () => {
    const get = async (query: string) => {
      const response = await passages().request(
        `/passages?${new URLSearchParams({ query, variables: '{"id":"v-1"}' }).toString()}`,
      );
      return [response.status, await response.json()] as const;
    };
    expect(await get("query Q($id: ID!) { voyage(id: $id) { id } }")).toEqual([
      200,
      { data: { voyage: { id: "v-1" } } },
    ]);
    expect(await get('# change\nmutation M { cancelVoyage(id: "v-1") { id } }')).toEqual([
      405,
      { errors: [{ message: "A mutation must be sent with POST." }] },
    ]);
  });

  it("accepts files as multipart", async () => {
    const schema =
      "scalar Upload type Query { a: Int } type Mutation { add(files: [Upload!]!, note: String): String! }";
    const form = new FormData();
    const query = "mutation M($files: [Upload!]!) { add(files: $files) }";
    form.append("operations", JSON.stringify({ query, variables: { files: [null, null] } }));
    form.append(
      "map",
      JSON.stringify({ 0: ["variables.files.0"], 1: ["variables.files.1", "variables.none.__proto__.x"] }),
    );
    form.append("0", new Blob(["a"]));
    form.append("1", new Blob(["b"]));
    const response = await standinOf("photos", schema, "photos.graphql").request("/photos", {
      method: "POST",
      body: form,
    });
    expect(await response.json()).toMatchObject({ data: { add: expect.any(String) as unknown } });
  });

  it("streams a subscription as server-sent events", async () => {
    const response = await passages().request("/passages", {
      method: "POST",
      headers: json,
      body: JSON.stringify({ query: "subscription { arrivals { id status } }" }),
    });
    expect(response.headers.get("content-type")).toBe("text/event-stream");
    const reader = response.body!.getReader();
    const texts: string[] = [];
    for (let count = 0; count < 3; count++)
      texts.push(new TextDecoder().decode((await reader.read()).value as Uint8Array));
    await reader.cancel();
    expect(new Set(texts).size).toBe(3);
    expect(texts[0]).toMatch(/^event: next\ndata: \{"data":\{"arrivals":\{"id":"\w+","status":"\w+"\}\}\}\n\n$/);
  });

  it("supports introspection", async () => {
    expect(buildSchema(demoText("v1", "passages.graphql")).getQueryType()?.name).toBe("Query");
    expect((await ask("{ __schema { queryType { name } } }")).data).toEqual({
      __schema: { queryType: { name: "Query" } },
    });
  });
});
