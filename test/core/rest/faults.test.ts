import { describe, expect, it } from "vitest";
import { readContract } from "../../../src/core/readContract.js";
import { readRest } from "../../support/readRest.js";
import { contractWith, okay } from "../../support/smallContract.js";

const good = { type: "object", properties: { a: { type: "string" } } };
const labels = (data: unknown) =>
  readRest(data).contract.operations.map((operation) => `${operation.method} ${operation.path}`);

describe("a fault sets aside what depends on it, and nothing else", () => {
  it.each<[string, unknown, string, string]>([
    ["a dangling reference", { properties: { x: { $ref: "#/components/schemas/Goood" } } }, "leads nowhere", "`Good`"],
    ["an unknown type", { type: "strng" }, "JSON Schema types", "`string`"],
    ["a schema that is text", "oops", "object or a boolean", ""],
    ["properties that are a list", { properties: ["a"] }, "has to be an object", ""],
    ["an alias of itself", { $ref: "#/components/schemas/Bad" }, "alias of itself", ""],
    [
      "a merge of itself",
      { allOf: [{ $ref: "#/components/schemas/Bad" }, { properties: { x: {} } }] },
      "made of itself",
      "",
    ],
  ])("%s", (_name, schema, message, hint) => {
    const { contract } = readRest(
      contractWith({
        Good: good,
        Bad: schema,
        Outer: { properties: { bad: { type: "array", items: { $ref: "#/components/schemas/Bad" } } } },
      }),
    );
    expect(contract.operations.map((operation) => operation.path)).toEqual(["/s/Good"]);
    expect(contract.setAside.map((each) => [each.what, each.kind])).toEqual([
      ["GET /s/Bad", "fault"],
      ["GET /s/Outer", "fault"],
    ]);
    expect(contract.setAside[0]?.why).toContain(message);
    expect(contract.setAside[0]?.why).toContain(hint);
    expect([...contract.types.keys()]).toEqual(["Good"]);
  });

  it("two aliases in a circle are both set aside", () => {
    const { contract } = readRest(
      contractWith({ A: { $ref: "#/components/schemas/B" }, B: { $ref: "#/components/schemas/A" }, Good: good }),
    );
    expect([...contract.types.keys()]).toEqual(["Good"]);
  });

  it("methods of OpenAPI 3.2 are counted", () => {
    const paths = { "/x": { query: { responses: {} }, additionalOperations: { COPY: { responses: {} } } } };
    const { contract } = readRest(contractWith({ Good: good }, paths, "3.2.0"));
    expect(contract.setAside.map((each) => [each.what, each.kind])).toEqual([
      ["COPY /x", "unsupported"],
      ["QUERY /x", "unsupported"],
    ]);
  });

  it("aliases in a circle end a merge too", () => {
    const circle = { A: { $ref: "#/components/schemas/B" }, B: { $ref: "#/components/schemas/A" } };
    const merged = { allOf: [{ $ref: "#/components/schemas/A" }, { properties: { x: { type: "string" } } }] };
    const { contract } = readRest(contractWith({ ...circle, Merged: merged, Good: good }));
    expect([...contract.types.keys()]).toEqual(["Good"]);
  });

  it("a merge of types that refer to each other without end is left out", () => {
    const tree = (name: string) => ({
      properties: { [name]: { type: "string" }, next: { $ref: `#/components/schemas/${name}` } },
    });
    const both = { allOf: [{ $ref: "#/components/schemas/One" }, { $ref: "#/components/schemas/Two" }] };
    const { contract } = readRest(contractWith({ One: tree("One"), Two: tree("Two"), Both: both }));
    expect(contract.setAside).toMatchObject([{ what: "GET /s/Both", kind: "unsupported" }]);
  });

  it("a fault nothing uses is told all the same", () => {
    const data = contractWith({ Good: good });
    (data["components"] as { schemas: Record<string, unknown> }).schemas["Unused"] = { type: "strng" };
    expect(readRest(data).problems).toMatchObject([{ code: "contract.invalid", level: "warning" }]);
    expect(labels(data)).toEqual(["get /s/Good"]);
  });

  it("broken operations, parameters and paths", () => {
    const { contract } = readRest(
      contractWith(
        { Good: good },
        {
          "no-slash": { get: { responses: {} } },
          "/a": {
            get: "not an object",
            post: { parameters: [{ in: "query" }], responses: {} },
            put: { parameters: [{ name: "x", in: "elsewhere" }], responses: {} },
          },
          "/b": null,
          "/c": { get: { parameters: [{ $ref: "#/components/parameters/None" }], responses: {} } },
        },
      ),
    );
    expect(contract.setAside.map((each) => each.what)).toEqual([
      "/b",
      "GET /a",
      "GET /c",
      "POST /a",
      "PUT /a",
      "no-slash",
    ]);
    expect(contract.operations).toHaveLength(1);
  });

  it("legal features that are not supported yet are counted apart", () => {
    const { contract } = readRest({
      ...contractWith(
        { Good: good, Remote: { $ref: "other.yaml#/X" } },
        {
          "/c": {
            get: {
              parameters: [{ name: "s", in: "cookie", required: true, schema: { type: "string" } }],
              responses: okay(true),
            },
          },
        },
      ),
      webhooks: { arrived: { post: {} } },
    });
    expect(contract.setAside.map((each) => [each.what, each.kind])).toEqual([
      ["GET /c", "unsupported"],
      ["GET /s/Remote", "unsupported"],
      ["webhook arrived", "unsupported"],
    ]);
  });

  it.each<[string, object, string]>([
    ["a server of its own", { servers: [{ url: "https://other.test" }], responses: okay(true) }, "servers of its own"],
    [
      "an answer that is only a stream",
      { responses: { 200: { description: "", content: { "text/event-stream": {} } } } },
      "is a stream",
    ],
    ["an anchor", { responses: okay({ $ref: "#anchor" }) }, "names an anchor"],
    ["a dynamic reference", { responses: okay({ $dynamicRef: "#node" }) }, "`$dynamicRef`"],
  ])("%s is left out as not supported, never silently wrong", (_name, operation, why) => {
    const { contract } = readRest(contractWith({ Good: good }, { "/x": { get: operation } }));
    expect(contract.operations.map((each) => each.path)).toEqual(["/s/Good"]);
    expect(contract.setAside).toMatchObject([{ what: "GET /x", kind: "unsupported" }]);
    expect(contract.setAside[0]?.why).toContain(why);
  });

  it("callbacks are counted, and their operation is kept", () => {
    const { contract } = readRest(
      contractWith({ Good: good }, { "/x": { post: { callbacks: { done: {} }, responses: {} } } }),
    );
    expect(contract.setAside.map((each) => each.what)).toEqual(["callback done of POST /x"]);
    expect(contract.operations).toHaveLength(2);
  });

  it("a chain of a thousand types is no nesting", () => {
    const link = (at: number) =>
      [`T${String(at)}`, { properties: { next: { $ref: `#/components/schemas/T${String(at + 1)}` } } }] as const;
    const { contract } = readRest(
      contractWith({
        ...Object.fromEntries(Array.from({ length: 1000 }, (_, at) => link(at))),
        T1000: { type: "string" },
      }),
    );
    expect(contract.setAside).toEqual([]);
    expect(contract.types.size).toBe(1001);
  });

  it("nesting has a ceiling", () => {
    let schema: unknown = { type: "string" };
    for (let depth = 0; depth < 400; depth++) schema = { type: "array", items: schema };
    const { contract } = readRest(contractWith({ Deep: schema, Good: good }));
    expect(contract.setAside).toMatchObject([{ what: "GET /s/Deep", kind: "unsupported" }]);
  });
});

describe("what cannot be read at all", () => {
  const codeOf = (document: string, text: string) =>
    readContract("api", [{ document, text }]).problems.map((each) => each.code);

  it.each([
    ["api.yaml", "", "contract.empty"],
    ["api.yaml", "a: [1", "contract.syntax"],
    ["api.json", '{"openapi": ', "contract.syntax"],
    ["notes.txt", "Dear harbour master", "contract.kind"],
    ["data.json", '{"name": "x"}', "contract.kind"],
    ["data.json", '{"__schema": {}}', "contract.kind"],
    ["old.yaml", 'swagger: "2.0"', "contract.version"],
    ["new.yaml", 'openapi: "4.0.0"', "contract.version"],
    ["x.graphql", "type Query {", "contract.syntax"],
    ["x.graphql", "type Query { a: Nope }", "graphql.schema"],
  ])("%s %j is %s", (document, text, code) => {
    expect(codeOf(document, text)).toEqual([code]);
  });
});

describe("texts made to exhaust a reader", () => {
  it("aliases that unfold without end", () => {
    const lines = ["a0: &a0 [x, x, x, x, x, x, x, x, x]"];
    for (let level = 1; level < 10; level++)
      lines.push(
        `a${String(level)}: &a${String(level)} [${Array.from({ length: 9 }, () => `*a${String(level - 1)}`).join(", ")}]`,
      );
    const { problems } = readContract("api", [{ document: "api.yaml", text: `openapi: 3.1.0\n${lines.join("\n")}\n` }]);
    expect(problems).toMatchObject([{ code: "contract.syntax" }]);
    expect(problems[0]?.message).toContain("aliases unfold");
  });

  it("nesting without end, in a schema text", () => {
    const { problems } = readContract("api", [
      { document: "a.graphql", text: `type Query { a: ${"[".repeat(200_000)}` },
    ]);
    expect(problems).toMatchObject([{ code: "contract.syntax" }]);
  });
});

describe("YAML and JSON", () => {
  it("give one model, merge keys and unquoted dates included", () => {
    const yaml = `
openapi: 3.1.0
info: { title: T, version: 1.0 }
paths:
  /a:
    get:
      responses:
        200:
          description: ok
          content: { application/json: { schema: { $ref: "#/components/schemas/A" } } }
components:
  schemas:
    Base: &base { type: object, properties: { day: { type: string, format: date, example: 2026-05-01 } } }
    A: { <<: *base, required: [day] }
`;
    const base = { type: "object", properties: { day: { type: "string", format: "date", example: "2026-05-01" } } };
    const json = {
      openapi: "3.1.0",
      info: { title: "T", version: 1.0 },
      paths: { "/a": { get: { responses: okay({ $ref: "#/components/schemas/A" }) } } },
      components: { schemas: { Base: base, A: { ...base, required: ["day"] } } },
    };
    const fromYaml = readContract("api", [{ document: "d", text: yaml }]).contract;
    const fromJson = readContract("api", [{ document: "d", text: JSON.stringify(json) }]).contract;
    expect(fromYaml).toEqual(fromJson);
  });
});
