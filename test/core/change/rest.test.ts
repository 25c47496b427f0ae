import { describe, expect, it } from "vitest";
import { compareRest } from "../../../src/core/change/compare/compareRest.js";
import type { Change } from "../../../src/core/change/change.js";
import { typescriptFacts } from "../../support/typescriptSdk.js";
import { readRest } from "../../support/readRest.js";
import { contractWith, okay } from "../../support/smallContract.js";

const compare = (before: unknown, after: unknown): Change[] =>
  compareRest(readRest(before).contract, readRest(after).contract, typescriptFacts());
const letter = { breaking: "B", risky: "R", compatible: "C" };
const told = (changes: readonly Change[]) =>
  changes
    .filter(({ isUnpromised }) => isUnpromised !== true)
    .map(({ code, subject, verdict }) => `${code} ${subject} ${letter[verdict.code]}/${letter[verdict.apps]}`)
    .sort();

/** The changes between two versions of a schema that is only in responses, only in requests, or in both. */
const answered = (before: unknown, after: unknown) =>
  told(compare(contractWith({ Berth: before }), contractWith({ Berth: after })));
const sent = (before: unknown, after: unknown) => {
  const asked = (schema: unknown) => {
    const data = contractWith(
      {},
      {
        "/a": {
          post: {
            requestBody: {
              required: true,
              content: { "application/json": { schema: { $ref: "#/components/schemas/Berth" } } },
            },
            responses: { 204: { description: "" } },
          },
        },
      },
    );
    return { ...data, components: { schemas: { Berth: schema } } };
  };
  return told(compare(asked(before), asked(after)));
};
const record = (properties: Record<string, unknown>, required: string[] = [], more: object = {}) => ({
  type: "object",
  properties,
  required,
  ...more,
});
const text = { type: "string" };

describe("responses", () => {
  it.each<[string, unknown, unknown, string[]]>([
    ["an optional field added", record({ a: text }), record({ a: text, b: text }), ["answer.field.new Berth.b C/C"]],
    [
      "a required field added",
      record({ a: text }),
      record({ a: text, b: text }, ["b"]),
      ["answer.field.new Berth.b R/C"],
    ],
    [
      "a required field removed",
      record({ a: text, b: text }, ["b"]),
      record({ a: text }),
      ["answer.field.gone Berth.b B/B"],
    ],
    ["an optional field removed", record({ a: text, b: text }), record({ a: text }), ["answer.field.gone Berth.b B/C"]],
    [
      "a field renamed",
      record({ a: text, depth: { type: "number" } }),
      record({ a: text, waterDepth: { type: "number" } }),
      ["answer.field.renamed Berth.depth B/C"],
    ],
    [
      "a field that may be absent",
      record({ a: text }, ["a"]),
      record({ a: text }),
      ["answer.field.now-optional Berth.a B/B"],
    ],
    [
      "a field that is always there",
      record({ a: text }),
      record({ a: text }, ["a"]),
      ["answer.field.now-always Berth.a R/C"],
    ],
    [
      "null gained",
      record({ a: text }),
      record({ a: { type: ["string", "null"] } }),
      ["answer.null.gained Berth.a B/B"],
    ],
    ["null lost", record({ a: { type: ["string", "null"] } }), record({ a: text }), ["answer.null.lost Berth.a C/C"]],
    [
      "from null-able to absent-able",
      record({ a: { type: ["string", "null"] } }, ["a"]),
      record({ a: text }),
      ["answer.field.now-optional Berth.a B/B", "answer.null.lost Berth.a C/C"],
    ],
    ["another type", record({ a: text }), record({ a: { type: "number" } }), ["answer.type.changed Berth.a B/B"]],
    [
      "integer to number",
      record({ a: { type: "integer" } }),
      record({ a: { type: "number" } }),
      ["answer.type.changed Berth.a C/R"],
    ],
    [
      "number to integer",
      record({ a: { type: "number" } }),
      record({ a: { type: "integer" } }),
      ["answer.type.changed Berth.a C/C"],
    ],
    [
      "date to date-time, kept as text",
      record({ a: { type: "string", format: "date" } }),
      record({ a: { type: "string", format: "date-time" } }),
      ["answer.format.changed Berth.a C/R"],
    ],
    ["a choice gained", { enum: ["a", "b"] }, { enum: ["a", "b", "c"] }, ["answer.choice.new Berth R/B"]],
    ["a choice lost", { enum: ["a", "b", "c"] }, { enum: ["a", "b"] }, ["answer.choice.gone Berth B/C"]],
    [
      "a range widened",
      record({ a: { type: "integer", maximum: 5 } }),
      record({ a: { type: "integer", maximum: 9 } }),
      ["answer.limit.widened Berth.a C/R"],
    ],
    [
      "a range narrowed",
      record({ a: { type: "integer", maximum: 9 } }),
      record({ a: { type: "integer", maximum: 5 } }),
      ["answer.limit.narrowed Berth.a C/C"],
    ],
    [
      "null in a list item",
      { type: "array", items: text },
      { type: "array", items: { type: ["string", "null"] } },
      ["answer.null.gained Berth[] B/B"],
    ],
    ["deprecation", record({ a: text }), record({ a: { ...text, deprecated: true } }), ["deprecated.new Berth.a C/C"]],
    [
      "a union member added",
      { oneOf: [text, { type: "integer" }] },
      { oneOf: [text, { type: "integer" }, { type: "boolean" }] },
      ["answer.member.new Berth R/B"],
    ],
    [
      "a union member removed",
      { oneOf: [text, { type: "integer" }, { type: "boolean" }] },
      { oneOf: [text, { type: "integer" }] },
      ["answer.member.gone Berth R/C"],
    ],
    [
      "the shape of other keys",
      { additionalProperties: text },
      { additionalProperties: { type: "integer" } },
      ["answer.type.changed Berth[key] B/B"],
    ],
  ])("%s", (_name, before, after, changes) => {
    expect(answered(before, after)).toEqual(changes);
  });
});

describe("requests", () => {
  it.each<[string, unknown, unknown, string[]]>([
    ["an optional field added", record({ a: text }), record({ a: text, b: text }), ["ask.field.new Berth.b C/C"]],
    [
      "a required field added",
      record({ a: text }),
      record({ a: text, b: text }, ["b"]),
      ["ask.field.new-required Berth.b B/B"],
    ],
    [
      "a field removed, open record",
      record({ a: text, b: { type: "integer" } }),
      record({ a: text }),
      ["ask.field.gone Berth.b B/R"],
    ],
    [
      "a field removed, closed record",
      record({ a: text, b: { type: "integer" } }),
      record({ a: text }, [], { additionalProperties: false }),
      ["ask.field.gone Berth.b B/B"],
    ],
    [
      "a field that is required now",
      record({ a: text }),
      record({ a: text }, ["a"]),
      ["ask.field.now-required Berth.a B/B"],
    ],
    [
      "a field that is optional now",
      record({ a: text }, ["a"]),
      record({ a: text }),
      ["ask.field.now-optional Berth.a C/C"],
    ],
    ["null lost", record({ a: { type: ["string", "null"] } }), record({ a: text }), ["ask.null.lost Berth.a B/B"]],
    ["null gained", record({ a: text }), record({ a: { type: ["string", "null"] } }), ["ask.null.gained Berth.a C/C"]],
    [
      "number to integer",
      record({ a: { type: "number" } }),
      record({ a: { type: "integer" } }),
      ["ask.type.changed Berth.a C/B"],
    ],
    [
      "integer to number",
      record({ a: { type: "integer" } }),
      record({ a: { type: "number" } }),
      ["ask.type.changed Berth.a C/C"],
    ],
    ["a choice lost", { enum: ["a", "b"] }, { enum: ["a"] }, ["ask.choice.gone Berth B/B"]],
    ["a choice gained", { enum: ["a"] }, { enum: ["a", "b"] }, ["ask.choice.new Berth C/C"]],
    [
      "a limit tightened",
      record({ a: { type: "string", maxLength: 9 } }),
      record({ a: { type: "string", maxLength: 5 } }),
      ["ask.limit.tightened Berth.a C/B"],
    ],
    [
      "a limit loosened",
      record({ a: { type: "string", maxLength: 5 } }),
      record({ a: { type: "string", maxLength: 9 } }),
      ["ask.limit.loosened Berth.a C/C"],
    ],
    [
      "a format changed",
      record({ a: { type: "string", format: "date" } }),
      record({ a: { type: "string", format: "date-time" } }),
      ["ask.format.changed Berth.a C/B"],
    ],
  ])("%s", (_name, before, after, changes) => {
    expect(sent(before, after)).toEqual(changes);
  });
});

describe("no change", () => {
  it.each<[string, unknown, unknown]>([
    [
      "another spelling of null",
      record({ a: { type: ["string", "null"] } }),
      record({ a: { anyOf: [text, { type: "null" }] } }),
    ],
    ["allOf of one", record({ a: text }), { allOf: [record({ a: text })] }],
    ["fields in another order", record({ a: text, b: text }), record({ b: text, a: text })],
    ["words", record({ a: text }), record({ a: { ...text, description: "words", example: "x" } })],
  ])("%s", (_name, before, after) => {
    expect(answered(before, after)).toEqual([]);
  });

  it("an operation with another path and operationId is recognised by its request and response", () => {
    const at = (paths: Record<string, string>) =>
      contractWith(
        { Berth: record({ a: text }), Crew: record({ b: text }) },
        Object.fromEntries(
          Object.entries(paths).map(([path, operationId]) => [
            path,
            { get: { operationId, responses: okay({ $ref: "#/components/schemas/Crew" }) } },
          ]),
        ),
      );
    const before = at({ "/crews/current": "currentCrew" });
    expect(told(compare(before, at({ "/v2/crews/current": "crewNow" })))).toEqual([
      "operation.moved GET /crews/current C/B",
      "operation.renamed GET /crews/current B/C",
    ]);
    // Two candidates, or a path without anything of the old one, are not similar.
    expect(told(compare(before, at({ "/v2/crews/current": "crewNow", "/v3/crews/current": "crewThen" })))).toContain(
      "operation.gone GET /crews/current B/B",
    );
    expect(told(compare(before, at({ "/hands": "crewNow" })))).toContain("operation.gone GET /crews/current B/B");
  });

  it("an inline object moved behind a reference, and back, where its type name is removed from source", () => {
    const inline = contractWith({ Berth: record({ size: record({ x: text }) }) });
    const moved = contractWith({ Berth: record({ size: { $ref: "#/components/schemas/Size" } }) });
    (moved["components"] as { schemas: object }).schemas = {
      ...(moved["components"] as { schemas: object }).schemas,
      Size: record({ x: text }),
    };
    expect(told(compare(inline, moved))).toEqual([]);
    expect(told(compare(moved, inline))).toEqual(["type.name.gone Size B/C"]);
  });

  it("another OpenAPI version writes null in another way", () => {
    const old = contractWith({ Berth: record({ a: { type: "string", nullable: true } }) }, {}, "3.0.3");
    expect(told(compare(old, contractWith({ Berth: record({ a: { type: ["string", "null"] } }) })))).toEqual([]);
  });

  it("a contract does not differ from itself, recursion included", () => {
    const tree = contractWith({
      Tree: record({
        kids: { type: "array", items: { $ref: "#/components/schemas/Tree" } },
        by: { additionalProperties: { $ref: "#/components/schemas/Tree" } },
      }),
    });
    expect(compare(tree, tree)).toEqual([]);
  });
});

const answeredAs = (content: object) => ({ 200: { description: "", content } });

describe("operations, parameters, statuses and auth", () => {
  const operation = (more: object = {}) => ({ operationId: "listBerths", responses: okay(true), ...more });
  const query = (name: string, more: object = {}) => ({ name, in: "query", schema: { type: "string" }, ...more });
  const get = (more: object = {}, path = "/berths") => contractWith({}, { [path]: { get: operation(more) } });

  it.each<[string, unknown, unknown, string[]]>([
    [
      "removed",
      contractWith({}, { "/a": { get: { responses: {} } }, "/b": { get: { responses: {} } } }),
      contractWith({}, { "/a": { get: { responses: {} } } }),
      ["operation.gone GET /b B/B"],
    ],
    [
      "added",
      get(),
      contractWith({}, { "/berths": { get: operation() }, "/b": { get: { responses: {} } } }),
      ["operation.new GET /b C/C"],
    ],
    ["renamed", get(), get({ operationId: "findBerths" }), ["operation.renamed GET /berths B/C"]],
    ["moved", get(), get({}, "/all-berths"), ["operation.moved GET /berths C/B"]],
    ["deprecated", get(), get({ deprecated: true }), ["operation.deprecated GET /berths C/C"]],
    ["parameter removed", get({ parameters: [query("q")] }), get(), ["ask.parameter.gone GET /berths q B/R"]],
    [
      "parameter renamed",
      get({ parameters: [query("quay")] }),
      get({ parameters: [query("quayName")] }),
      ["ask.parameter.renamed GET /berths quay B/R"],
    ],
    [
      "parameter from one value to a list of them, repeated",
      get({ parameters: [query("q")] }),
      get({ parameters: [query("q", { schema: { type: "array", items: { type: "string" } } })] }),
      ["ask.type.changed GET /berths q B/C"],
    ],
    [
      "to a list in one text",
      get({ parameters: [query("q", { explode: false })] }),
      get({ parameters: [query("q", { explode: false, schema: { type: "array", items: { type: "string" } } })] }),
      ["ask.type.changed GET /berths q B/R"],
    ],
    [
      "to a list of at least two",
      get({ parameters: [query("q")] }),
      get({ parameters: [query("q", { schema: { type: "array", items: { type: "string" }, minItems: 2 } })] }),
      ["ask.type.changed GET /berths q B/B"],
    ],
    ["parameter added", get(), get({ parameters: [query("q")] }), ["ask.parameter.new GET /berths q C/C"]],
    [
      "required parameter added",
      get(),
      get({ parameters: [query("q", { required: true })] }),
      ["ask.parameter.new-required GET /berths q B/B"],
    ],
    [
      "parameter required now",
      get({ parameters: [query("q")] }),
      get({ parameters: [query("q", { required: true })] }),
      ["ask.parameter.now-required GET /berths q B/B"],
    ],
    [
      "parameter optional now",
      get({ parameters: [query("q", { required: true })] }),
      get({ parameters: [query("q")] }),
      ["ask.parameter.now-optional GET /berths q C/C"],
    ],
    [
      "default changed",
      get({ parameters: [query("q", { schema: { type: "integer", default: 1 } })] }),
      get({ parameters: [query("q", { schema: { type: "integer", default: 2 } })] }),
      ["ask.default.changed GET /berths q C/R"],
    ],
    [
      "list written another way",
      get({ parameters: [query("q", { schema: { type: "array", items: { type: "string" } } })] }),
      get({ parameters: [query("q", { explode: false, schema: { type: "array", items: { type: "string" } } })] }),
      ["ask.style.changed GET /berths q C/B"],
    ],
    [
      "parameter of another type",
      get({ parameters: [query("q")] }),
      get({ parameters: [query("q", { schema: { type: "integer" } })] }),
      ["ask.type.changed GET /berths q B/B"],
    ],
    [
      "200 to 201",
      get(),
      get({ responses: { 201: okay(true)["200"] } }),
      ["answer.status.changed GET /berths 200 C/R"],
    ],
    [
      "200 to 204",
      get(),
      get({ responses: { 204: { description: "" } } }),
      ["answer.body.changed GET /berths 200 B/B"],
    ],
    [
      "a bodyless 202 beside 200",
      get(),
      get({ responses: { ...okay(true), 202: { description: "" } } }),
      ["answer.body.changed GET /berths 202 B/B"],
    ],
    [
      "new failure status",
      get(),
      get({ responses: { ...okay(true), 404: { description: "" } } }),
      ["failure.status.new GET /berths 404 R/R"],
    ],
    [
      "failure status gone",
      get({ responses: { ...okay(true), 404: { description: "" } } }),
      get(),
      ["failure.status.gone GET /berths 404 B/C"],
    ],
    [
      "body added and required",
      get(),
      get({ requestBody: { required: true, content: { "application/json": {} } } }),
      ["ask.body.now-required GET /berths body B/B"],
    ],
    [
      "body removed",
      get({ requestBody: { content: { "application/json": {} } } }),
      get(),
      ["ask.body.gone GET /berths body B/R"],
    ],
    [
      "media type of the body",
      get({ requestBody: { content: { "application/json": { schema: text } } } }),
      get({ requestBody: { content: { "text/plain": { schema: text } } } }),
      ["ask.media.changed GET /berths body C/B"],
    ],
    [
      "a media type of the body that source chooses",
      get({ requestBody: { content: { "application/json": { schema: record({}) }, "text/plain": { schema: text } } } }),
      get({ requestBody: { content: { "application/json": { schema: record({}) } } } }),
      ["ask.media.changed GET /berths body B/B"],
    ],
    [
      "a media type of an answer",
      get({ responses: answeredAs({ "application/json": { schema: record({}) }, "text/csv": { schema: text } }) }),
      get({ responses: answeredAs({ "application/json": { schema: record({}) } }) }),
      ["answer.media.gone GET /berths text/csv B/B"],
    ],
    [
      "a stream beside a whole",
      get({
        responses: answeredAs({ "application/json": { schema: record({}) }, "text/event-stream": { schema: text } }),
      }),
      get({ responses: answeredAs({ "application/json": { schema: record({}) } }) }),
      ["answer.stream.gone GET /berths stream B/B"],
    ],
    [
      "a whole that became a stream",
      get({ responses: answeredAs({ "application/json": { schema: record({}) } }) }),
      get({ responses: answeredAs({ "application/x-ndjson": { itemSchema: record({}) } }) }),
      ["answer.form.changed GET /berths 200 B/B"],
    ],
  ])("%s", (_name, before, after, changes) => {
    expect(told(compare(before, after))).toEqual(changes);
  });

  it.each<[string, unknown, string]>([
    ["is sent as another header", { type: "apiKey", in: "header", name: "X-Key" }, "C/B"],
    ["is sent in the query", { type: "apiKey", in: "query", name: "X-Harbour" }, "C/B"],
    ["is of another kind", { type: "http", scheme: "bearer" }, "B/B"],
  ])("a key that %s is reported once, whatever requires it", (_what, scheme, verdict) => {
    const secured = (key: unknown) => ({
      ...contractWith({ Berth: record({ a: text }), Crew: record({ b: text }) }),
      security: [{ key: [] }],
      components: {
        schemas: { Berth: record({ a: text }), Crew: record({ b: text }) },
        securitySchemes: { key },
      },
    });
    const before = secured({ type: "apiKey", in: "header", name: "X-Harbour" });
    expect(told(compare(before, secured(scheme)))).toEqual([`auth.scheme.changed connection key ${verdict}`]);
  });

  it("a renamed path parameter breaks the argument, not the request", () => {
    const path = (name: string) =>
      contractWith(
        {},
        {
          [`/berths/{${name}}`]: {
            get: operation({ parameters: [{ name, in: "path", required: true, schema: { type: "string" } }] }),
          },
        },
      );
    expect(told(compare(path("berthId"), path("id")))).toEqual([
      "ask.parameter.renamed GET /berths/{berthId} berthId B/C",
    ]);
  });

  it("authentication is required now; another name for the same scheme is no change", () => {
    const secured = (schemes: object, security?: unknown) => ({
      ...get(security === undefined ? {} : { security }),
      components: { schemas: {}, securitySchemes: schemes },
    });
    const bearer = { type: "http", scheme: "bearer" };
    expect(told(compare(secured({}), secured({ a: bearer }, [{ a: [] }])))).toEqual([
      "auth.now-required GET /berths B/B",
    ]);
    expect(told(compare(secured({ a: bearer }, [{ a: [] }]), secured({ b: bearer }, [{ b: [] }])))).toEqual([
      "auth.scheme.gone connection a B/C",
    ]);
  });

  it("a type in both directions names only the operations of the direction", () => {
    const both = (schema: unknown) => {
      const body = { content: { "application/json": { schema: { $ref: "#/components/schemas/Berth" } } } };
      return contractWith({ Berth: schema }, { "/send": { post: { requestBody: body, responses: {} } } });
    };
    const changes = compare(both(record({ a: text, b: { type: "integer" } })), both(record({ a: text })));
    expect(changes.map(({ code, operations }) => [code, operations])).toEqual([
      ["answer.field.gone", ["GET /s/Berth"]],
      ["ask.field.gone", ["POST /send"]],
    ]);
  });

  it("a change names the operations that reach it, and both locations", () => {
    const before = contractWith({
      Size: record({ x: text }),
      Berth: record({ size: { $ref: "#/components/schemas/Size" } }),
      Other: text,
    });
    const after = contractWith({
      Size: record({ x: { type: "integer" } }),
      Berth: record({ size: { $ref: "#/components/schemas/Size" } }),
      Other: text,
    });
    expect(compare(before, after)).toMatchObject([
      {
        operations: ["GET /s/Berth", "GET /s/Size"],
        before: { pointer: "/components/schemas/Size/properties/x" },
        after: { pointer: "/components/schemas/Size/properties/x" },
      },
    ]);
  });
});

describe("where requests are sent", () => {
  const served = (servers: string[], own: string[] = []) => {
    const data = contractWith(
      {},
      { "/a": { get: { ...(own.length > 0 ? { servers: own.map((url) => ({ url })) } : {}), responses: okay } } },
    );
    return { ...data, servers: servers.map((url) => ({ url })) };
  };
  const api = "https://api.ostrel.example/v1";
  it.each<[string, unknown, unknown, string[]]>([
    ["the same, spelled another way", served([api]), served([`${api}/`]), []],
    [
      "another path of the same origin",
      served([api]),
      served(["https://api.ostrel.example/v2"]),
      ["server.moved servers C/B"],
    ],
    ["another origin", served([api]), served(["https://api.elsewhere.example/v1"]), ["server.elsewhere servers B/B"]],
    ["another one is listed besides", served([api]), served([api, "https://test.ostrel.example"]), []],
    [
      "one of several is gone",
      served([api, "https://test.ostrel.example"]),
      served([api]),
      ["server.moved servers C/B"],
    ],
    ["a path where the contract said nothing", served([]), served(["/v2"]), ["server.moved servers C/B"]],
    ["nothing where the contract said a path", served(["/v1"]), served([]), ["server.moved servers C/B"]],
    ["an address where the app had to say one", served(["/v1"]), served([api]), []],
    [
      "an operation gains a server elsewhere",
      served([api]),
      served([api], ["https://files.ostrel.example"]),
      ["server.elsewhere GET /a B/B"],
    ],
    [
      "also where the app says the address of the others",
      served([]),
      served([], ["https://files.ostrel.example"]),
      ["server.elsewhere GET /a B/B"],
    ],
    [
      "an operation changes its server",
      served([api], ["https://a.ostrel.example"]),
      served([api], ["https://b.ostrel.example"]),
      ["server.elsewhere GET /a B/B", "server.own.gone connection https://a.ostrel.example B/C"],
    ],
    [
      "an operation gains one on the same origin",
      served([api]),
      served([api], ["https://api.ostrel.example/files"]),
      ["server.moved GET /a C/B"],
    ],
    ["an operation gains what the contract has", served([api]), served([api], [api]), []],
    [
      "an operation loses its own",
      served([api], ["https://files.ostrel.example"]),
      served([api]),
      ["server.elsewhere GET /a B/B", "server.own.gone connection https://files.ostrel.example B/C"],
    ],
  ])("%s", (_what, before, after, expected) => {
    expect(told(compare(before, after))).toEqual(expected);
  });

  it("a base path of OpenAPI 2.0", () => {
    const old = (more: object) => ({
      swagger: "2.0",
      info: { title: "T", version: "1" },
      paths: { "/a": { get: { responses: okay } } },
      ...more,
    });
    expect(told(compare(old({}), old({ basePath: "/v2" })))).toEqual(["server.moved servers C/B"]);
    const host = { host: "api.ostrel.example", schemes: ["https"] };
    expect(told(compare(old(host), old({ ...host, basePath: "/v2" })))).toEqual(["server.moved servers C/B"]);
    expect(told(compare(old(host), old({ ...host, host: "api.elsewhere.example" })))).toEqual([
      "server.elsewhere servers B/B",
    ]);
  });
});
