import { describe, expect, it } from "vitest";
import { readContract } from "../../src/core/readContract.js";
import { createStandin } from "../../src/standin/standin.js";

const json = { "content-type": "application/json" };

describe("configured scalars", () => {
  const text =
    "scalar Moment input At { moment: Moment } type Query { now: Moment! at(moment: Moment, in: At, all: [Moment!]): Boolean }";
  const { contract, schema } = readContract("clock", [{ document: "clock.graphql", text }]);
  if (!contract) throw new Error("The schema cannot be read.");
  const app = createStandin([{ contract, schema, scalars: new Map([["Moment", "date-time"]]) }], {
    seed: 1,
    eventEveryMs: 5,
  });
  const ask = async (query: string, variables: object = {}) => {
    const init = { method: "POST", headers: json, body: JSON.stringify({ query, variables }) };
    return (await (await app.request("/clock", init)).json()) as {
      data?: Record<string, unknown>;
      errors?: { message: string }[];
    };
  };

  it("are in the stand-in server's responses", async () => {
    expect((await ask("{ now }")).data?.["now"]).toMatch(/^\d{4}-\d\d-\d\dT\d\d:\d\d/);
  });

  it.each([
    ['{ at(moment: "soon") }', {}],
    ['{ at(in: { moment: "soon" }) }', {}],
    ['{ at(all: ["2031-05-01T00:00:00Z", "soon"]) }', {}],
    ["query Q($m: Moment) { at(moment: $m) }", { m: "soon" }],
    ["query Q($m: At) { at(in: $m) }", { m: { moment: 3 } }],
    ["query Q($m: [Moment!]) { at(all: $m) }", { m: ["soon"] }],
  ])("are checked in requests: %s %j is refused", async (query, variables) => {
    expect((await ask(query, variables)).errors?.[0]?.message).toContain(
      "is not a valid Moment. Write it as date-time",
    );
  });

  it("accept a date-time, and null where it is allowed", async () => {
    const query = "query Q($m: Moment, $all: [Moment!]) { at(moment: $m, all: $all) }";
    const variables = { m: null, all: ["2031-05-01T10:00:00Z"] };
    expect((await ask(query, variables)).errors).toBeUndefined();
  });
});

describe("a mutation", () => {
  const text =
    "type Query { boat(id: ID!): Boat boats: [Boat!]! } type Boat { id: ID! name: String! } type Mutation { renameBoat(id: ID!, name: String!): Boat addBoat(id: ID, name: String!): Boat }";
  it("of a missing thing does not create one", async () => {
    const { contract, schema } = readContract("fleet", [{ document: "fleet.graphql", text }]);
    if (!contract) throw new Error("The schema cannot be read.");
    const app = createStandin([{ contract, schema }], { seed: 1, eventEveryMs: 5 });
    const ask = async (query: string) => {
      const response = await app.request("/fleet", { method: "POST", headers: json, body: JSON.stringify({ query }) });
      return ((await response.json()) as { data: Record<string, unknown> }).data;
    };
    const before = await ask("{ boats { id } }");
    expect(await ask('mutation { renameBoat(id: "none", name: "Tern") { id name } }')).toEqual({ renameBoat: null });
    expect(await ask("{ boats { id } }")).toEqual(before);
    expect(await ask('mutation { addBoat(id: "b-9", name: "Tern") { name } }')).toEqual({ addBoat: { name: "Tern" } });
    expect(await ask('mutation { renameBoat(id: "b-9", name: "Gull") { name } }')).toEqual({
      renameBoat: { name: "Gull" },
    });
  });
});

describe("a REST contract", () => {
  const schemaOf = (name: string) => ({ $ref: `#/components/schemas/${name}` });
  const raw = (parameters: object[]) => ({
    openapi: "3.1.0",
    info: { title: "Fleet", version: "1" },
    paths: {
      "/boats": {
        get: {
          parameters,
          responses: {
            200: {
              description: "",
              headers: { Link: { schema: { type: "string" } } },
              content: { "application/json": { schema: { type: "array", items: schemaOf("Boat") } } },
            },
            404: { description: "", content: { "application/problem+json": { schema: schemaOf("Problem") } } },
          },
        },
      },
    },
    components: {
      schemas: {
        Boat: { type: "object", required: ["id"], properties: { id: { type: "string" } } },
        Problem: {
          type: "object",
          required: ["title", "status"],
          properties: { title: { type: "string" }, status: { type: "integer" }, detail: { type: "string" } },
        },
      },
    },
  });
  const play = (parameters: object[]) => {
    const data = raw(parameters);
    const { contract } = readContract("api", [{ document: "api.json", text: JSON.stringify(data) }]);
    if (!contract) throw new Error("The contract cannot be read.");
    return createStandin([{ contract, raw: data }], { seed: 1, eventEveryMs: 5 });
  };

  it.each([
    ["by links alone", [], ""],
    ["by links, in pages of a size", [{ name: "limit", in: "query", schema: { type: "integer" } }], "?limit=2"],
    [
      "by links that say the number",
      [
        { name: "page", in: "query", schema: { type: "integer" } },
        { name: "limit", in: "query", schema: { type: "integer" } },
      ],
      "?limit=2",
    ],
  ])("is paged %s, with each item once", async (_what, parameters, query) => {
    const app = play(parameters);
    const seen: string[] = [];
    let pages = 0;
    for (let url: string | undefined = `/api/boats${query}`; url !== undefined; pages += 1) {
      const answer: Response = await app.request(url);
      expect(answer.status).toBe(200);
      seen.push(...((await answer.json()) as { id: string }[]).map(({ id }) => id));
      url = /^<([^>]*)>; rel="next"$/.exec(answer.headers.get("link") ?? "")?.[1];
      expect(pages).toBeLessThan(20);
    }
    expect(pages).toBeGreaterThan(1);
    expect(new Set(seen).size).toBe(seen.length);
  });

  it("has realistic titles of problems", async () => {
    const app = play([]);
    const failed = await app.request("/api/boats", { headers: { "rhema-play": "status=404" } });
    expect(await failed.json()).toMatchObject({ title: "Not found", status: 404 });
  });
});
