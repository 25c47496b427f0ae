import { describe, expect, it } from "vitest";
import { readContract } from "../../../src/core/readContract.js";
import { readRest } from "../../support/readRest.js";
import { contractWith, okay } from "../../support/smallContract.js";

const good = { type: "object", properties: { a: { type: "string" } } };
const labels = (data: unknown) =>
  readRest(data).contract.operations.map((operation) => `${operation.method} ${operation.path}`);

describe("an error skips what depends on it, and nothing else", () => {
  it.each<[string, unknown, string, string]>([
    [
      "a dangling reference",
      { properties: { x: { $ref: "#/components/schemas/Goood" } } },
      "does not resolve",
      "`Good`",
    ],
    ["an unknown type", { type: "strng" }, "JSON Schema types", "`string`"],
    ["a schema that is text", "oops", "object or a boolean", ""],
    ["properties that are a list", { properties: ["a"] }, "must be an object", ""],
    ["an alias of itself", { $ref: "#/components/schemas/Bad" }, "alias of itself", ""],
    [
      "a merge of itself",
      { allOf: [{ $ref: "#/components/schemas/Bad" }, { properties: { x: {} } }] },
      "contains itself",
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
    expect(contract.setAside.map((each) => each.what)).toEqual(["GET /s/Bad", "GET /s/Outer"]);
    expect(contract.setAside[0]?.why).toContain(message);
    expect(contract.setAside[0]?.why).toContain(hint);
    expect([...contract.types.keys()]).toEqual(["Good"]);
  });

  it("two aliases in a cycle are both skipped", () => {
    const { contract } = readRest(
      contractWith({ A: { $ref: "#/components/schemas/B" }, B: { $ref: "#/components/schemas/A" }, Good: good }),
    );
    expect([...contract.types.keys()]).toEqual(["Good"]);
  });

  it("methods of OpenAPI 3.2 are read only in 3.2", () => {
    const item = { query: { responses: okay(true) }, additionalOperations: { COPY: { responses: okay(true) } } };
    const methods = (dialect: string) =>
      readRest(contractWith({}, { "/x": item }, dialect)).contract.operations.map((each) => each.method);
    expect(methods("3.2.0")).toEqual(["copy", "query"]);
    expect(methods("3.1.0")).toEqual([]);
  });

  it("a merge also ends in a cycle of aliases", () => {
    const circle = { A: { $ref: "#/components/schemas/B" }, B: { $ref: "#/components/schemas/A" } };
    const merged = { allOf: [{ $ref: "#/components/schemas/A" }, { properties: { x: { type: "string" } } }] };
    const { contract } = readRest(contractWith({ ...circle, Merged: merged, Good: good }));
    expect([...contract.types.keys()]).toEqual(["Good"]);
  });

  it("a merge of two recursive types becomes a type of its own and ends", () => {
    const recursive = (own: string) => ({
      type: "object",
      properties: { [own]: { type: "string" }, next: { $ref: `#/components/schemas/${own}` } },
    });
    const { contract } = readRest(
      contractWith({
        A: recursive("A"),
        B: recursive("B"),
        Both: { allOf: [{ $ref: "#/components/schemas/A" }, { $ref: "#/components/schemas/B" }] },
      }),
    );
    expect(contract.setAside).toEqual([]);
    const both = contract.types.get("Both")?.shape;
    const next = both?.kind === "record" ? both.fields.find((field) => field.name === "next") : undefined;
    expect(next?.type.shape).toEqual({ kind: "named", key: "A & B" });
    const merged = contract.types.get("A & B")?.shape;
    expect(merged?.kind === "record" ? merged.fields.map((field) => field.name).sort() : []).toEqual([
      "A",
      "B",
      "next",
    ]);
  });

  it("an error in an unused part is also reported", () => {
    const data = contractWith({ Good: good });
    (data["components"] as { schemas: Record<string, unknown> }).schemas["Unused"] = { type: "strng" };
    expect(readRest(data).problems).toMatchObject([{ code: "contract.invalid", level: "warning" }]);
    expect(labels(data)).toEqual(["get /s/Good"]);
  });

  it("invalid operations, parameters and paths", () => {
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

  it("a reference that leads out of the contract skips what needs it, with the reason", () => {
    const { contract } = readRest(contractWith({ Good: good, Remote: { $ref: "other.yaml#/X" } }));
    expect(contract.setAside.map((each) => each.what)).toEqual(["GET /s/Remote"]);
    expect(contract.setAside[0]?.why).toContain("`other.yaml#/X`");
  });

  it.each([
    ["an anchor nobody has", { $ref: "#nowhere" }, "anchor"],
    ["a dynamic anchor nobody has", { $dynamicRef: "#nowhere" }, "anchor"],
  ])("%s is an error", (_name, schema, why) => {
    const { contract } = readRest(contractWith({ Good: good }, { "/x": { get: { responses: okay(schema) } } }));
    expect(contract.operations.map((each) => each.path)).toEqual(["/s/Good"]);
    expect(contract.setAside[0]?.why).toContain(why);
  });

  it("an invalid callback or webhook is skipped alone", () => {
    const broken = { "{$url}": { post: { parameters: {}, responses: {} } } };
    const { contract } = readRest({
      ...contractWith({ Good: good }, { "/x": { post: { callbacks: { done: broken }, responses: {} } } }),
      webhooks: { arrived: { post: { responses: [] } }, left: { post: { responses: okay(true) } } },
    });
    expect(contract.setAside.map((each) => each.what)).toEqual(["POST of callback done", "POST of webhook arrived"]);
    expect(contract.operations).toHaveLength(2);
    expect(contract.webhooks.map((each) => each.name)).toEqual(["left"]);
  });

  it("a chain of a thousand types does not count as nesting", () => {
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

  it("nesting has a limit", () => {
    let schema: unknown = { type: "string" };
    for (let depth = 0; depth < 400; depth++) schema = { type: "array", items: schema };
    const { contract } = readRest(contractWith({ Deep: schema, Good: good }));
    expect(contract.setAside).toMatchObject([{ what: "GET /s/Deep" }]);
  });
});

describe("contracts that cannot be read", () => {
  const codeOf = (document: string, text: string) => [
    ...new Set(readContract("api", [{ document, text }]).problems.map((each) => each.code)),
  ];

  it.each([
    ["api.yaml", "", "contract.empty"],
    ["api.yaml", "a: [1", "contract.syntax"],
    ["api.json", '{"openapi": ', "contract.syntax"],
    ["notes.txt", "Dear harbour master", "contract.kind"],
    ["data.json", '{"name": "x"}', "contract.kind"],
    ["data.json", '{"__schema": {}}', "contract.kind"],
    ["old.yaml", 'swagger: "1.2"', "contract.version"],
    ["new.yaml", 'openapi: "4.0.0"', "contract.version"],
    ["x.graphql", "type Query {", "contract.syntax"],
    ["x.graphql", "type Query { a: Nope }", "graphql.schema"],
  ])("%s %j is %s", (document, text, code) => {
    expect(codeOf(document, text)).toEqual([code]);
  });
});

describe("contracts that are made to exhaust a reader", () => {
  it("aliases that expand without end", () => {
    const lines = ["a0: &a0 [x, x, x, x, x, x, x, x, x]"];
    for (let level = 1; level < 10; level++)
      lines.push(
        `a${String(level)}: &a${String(level)} [${Array.from({ length: 9 }, () => `*a${String(level - 1)}`).join(", ")}]`,
      );
    const { problems } = readContract("api", [{ document: "api.yaml", text: `openapi: 3.1.0\n${lines.join("\n")}\n` }]);
    expect(problems).toMatchObject([{ code: "contract.syntax" }]);
    expect(problems[0]?.message).toContain("aliases unfold");
  });

  it("nesting without end, in a schema", () => {
    const { problems } = readContract("api", [
      { document: "a.graphql", text: `type Query { a: ${"[".repeat(200_000)}` },
    ]);
    expect(problems).toMatchObject([{ code: "contract.syntax" }]);
  });
});

describe("YAML and JSON", () => {
  it("give the same model, merge keys and unquoted dates included", () => {
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
