import { describe, expect, it } from "vitest";
import { NameScope, memberNameFrom, typeNameFrom } from "../../../src/core/sdk/nameScope.js";
import { planRest } from "../../../src/core/sdk/planRest.js";
import { selectOperations } from "../../../src/core/sdk/selectOperations.js";
import { printRest, readRest } from "../../support/readRest.js";
import { contractWith, okay } from "../../support/smallContract.js";

const plan = (data: unknown) => planRest(readRest(data).contract, {});
const schemasOf = (data: Record<string, unknown>) => (data["components"] as { schemas: object }).schemas;
const typeNames = (data: unknown) => [...plan(data).types.values()].map((type) => type.name);
const callNames = (paths: Record<string, unknown>) => plan(contractWith({}, paths)).calls.map((call) => call.name);

describe("names", () => {
  it.each([
    ["+1", "Plus1"],
    ["-1", "Minus1"],
    ["kebab-name", "KebabName"],
    ["pkg.deep.Name", "PkgDeepName"],
    ["名前", "名前"],
    ["", "Empty"],
    ["*", "Star"],
    ["🙂", "U1f642"],
  ])("%j becomes %s", (name, expected) => {
    expect(typeNameFrom(name)).toBe(expected);
  });

  it("of enum members start in lower case", () => {
    expect([memberNameFrom("X-Request-Id"), memberNameFrom("filter[status]"), memberNameFrom("ID")]).toEqual([
      "xRequestId",
      "filterStatus",
      "id",
    ]);
  });

  it("are unique without regard to case, and duplicates are named after their kind", () => {
    const claims = (keys: string[]): string[] => {
      const scope = new NameScope(["Taken"]);
      return ["taken", "A", "a", "b2"].map((name, at) => scope.claim(name, keys[at]));
    };
    const names = claims(["one", "two", "three", "four"]);
    expect(names.map((name) => name.replace(/_\w{4}$/, "_"))).toEqual(["taken_", "A", "a_", "b2"]);
    expect(claims(["one", "two", "three", "four"])).toEqual(names);
    expect(claims(["one", "two", "other", "four"])[2]).not.toBe(names[2]);
  });

  it("never change if something unrelated is added", () => {
    const inline = {
      type: "object",
      properties: { size: { type: "object", properties: { unit: { enum: ["m", "ft"] } } } },
    };
    const before = contractWith({
      Vessel: inline,
      "vessel-size": inline,
      vesselSize: { type: "object", properties: {} },
    });
    const more = contractWith(
      { Aardvark: inline, Zebra: inline },
      { "/aa": { get: { operationId: "a", responses: okay(inline) } } },
    );
    const after = {
      ...before,
      paths: { ...(more["paths"] as object), ...(before["paths"] as object) },
      components: { schemas: { ...schemasOf(more), ...schemasOf(before) } },
    };
    const [left, right] = [plan(before), plan(after)];
    for (const [id, type] of left.types) expect([id, right.types.get(id)?.name]).toEqual([id, type.name]);
    expect(right.types.size).toBeGreaterThan(left.types.size);
    expect(left.calls.map((call) => call.typeNames)).toEqual(
      right.calls.filter((call) => left.calls.some(({ name }) => name === call.name)).map((call) => call.typeNames),
    );
  });

  it("that need no change have priority, and others are spelled out", () => {
    const object = (field: string) => ({ type: "object", properties: { [field]: { type: "string" } } });
    const { types } = plan(
      contractWith({ "berth-size": object("made"), BerthSize: object("exact"), "berth+size": object("plus") }),
    );
    const names = ["BerthSize", "berth-size", "berth+size"].map((key) => types.get(key)?.name);
    expect(names).toEqual(["BerthSize", "BerthMinusSize", "BerthPlusSize"]);
  });

  it("of calls come from the operationId, or from method and path", () => {
    expect(
      callNames({
        "/a/{id}/b": { get: { responses: {} } },
        "/c": { get: { operationId: "thing/list-for.group", responses: {} } },
      }),
    ).toEqual(["getAByIdB", "thingListForGroup"]);
  });

  it("of calls that share an operationId all come from method and path", () => {
    expect(
      callNames({
        "/a": { get: { operationId: "list", responses: {} } },
        "/b": { get: { operationId: "List", responses: {} } },
        "/c": { get: { operationId: "other", responses: {} } },
      }),
    ).toEqual(["getA", "getB", "other"]);
  });

  it("do not change if something unrelated is added", () => {
    const one = {
      A: {
        type: "object",
        properties: {
          kind: { enum: ["x", "y"] },
          part: {
            type: "object",
            properties: {
              q: { oneOf: [{ type: "string" }, { type: "object", properties: { kind: { const: "k" } } }] },
            },
          },
        },
      },
    };
    const before = typeNames(contractWith(one));
    const after = typeNames(
      contractWith(
        {
          ...one,
          Aardvark: { type: "object", properties: { part: { type: "object", properties: { a: {} } } } },
          Z: { enum: ["x", "y"] },
        },
        { "/0": { get: { operationId: "aaa", responses: okay({ type: "object", properties: { x: {} } }) } } },
      ),
    );
    expect(before).toEqual(["A", "AKind", "APart", "APartQ", "APartQK"]);
    expect(after).toEqual(expect.arrayContaining(before));
  });
});

describe("request and response types", () => {
  const account = {
    type: "object",
    required: ["id", "secret"],
    properties: {
      id: { type: "string", readOnly: true },
      secret: { type: "string", writeOnly: true },
      name: { type: "string" },
    },
  };
  const json = { "application/json": { schema: { $ref: "#/components/schemas/Account" } } };

  it("a type with fields in one direction only becomes two", () => {
    const files = printRest(
      contractWith(
        { Account: account },
        {
          "/a": {
            post: {
              operationId: "add",
              requestBody: { content: json },
              responses: okay({ $ref: "#/components/schemas/Account" }),
            },
          },
        },
      ),
    );
    const shapes = files.get("api/shapes.ts") ?? "";
    expect(shapes).toContain("export interface Account {\n  id: string;\n  name?: string;\n}");
    expect(shapes).toContain("export interface AccountToSend {\n  secret: string;\n  name?: string | undefined;\n}");
    expect(files.get("api/calls/a.ts")).toContain("readonly body?: AccountToSend | undefined;");
  });

  it("a type that is only sent accepts undefined for absent; one that is also received does not", () => {
    const sent = { type: "object", properties: { tags: { type: "array", items: { type: "string" } } } };
    const body = { content: { "application/json": { schema: { $ref: "#/components/schemas/Sent" } } } };
    const data = {
      ...contractWith({}, { "/a": { post: { requestBody: body, responses: {} } } }),
      components: { schemas: { Sent: sent } },
    };
    expect(printRest(data).get("api/shapes.ts")).toContain("tags?: readonly string[] | undefined;");
    expect(
      printRest(contractWith({ Sent: sent }, { "/a": { post: { requestBody: body, responses: {} } } })).get(
        "api/shapes.ts",
      ),
    ).toContain("tags?: string[];");
  });
});

describe("selected operations", () => {
  const { operations } = readRest(
    contractWith(
      {},
      {
        "/berths": { get: { operationId: "list", tags: ["read"], responses: {} }, post: { responses: {} } },
        "/berths/{id}": { get: { responses: {} } },
        "/berths/{id}/notes": { get: { responses: {} } },
        "/berthsmen": { get: { responses: {} } },
      },
    ),
  ).contract;
  const kept = (selection: object) =>
    selectOperations(operations, selection).kept.map((each) => `${each.method} ${each.path}`);

  it.each<[object, string[]]>([
    [{ only: ["list"] }, ["get /berths"]],
    [{ only: ["read"] }, ["get /berths"]],
    [{ only: ["GET /berths/**"] }, ["get /berths", "get /berths/{id}", "get /berths/{id}/notes"]],
    [{ only: ["get /berths/*"] }, ["get /berths/{id}"]],
    [{ only: ["* /berths"] }, ["get /berths", "post /berths"]],
    [{ skip: ["* /berths/**"] }, ["get /berthsmen"]],
    [{ only: ["GET /**"], skip: ["read"] }, ["get /berths/{id}", "get /berths/{id}/notes", "get /berthsmen"]],
  ])("%j", (selection, expected) => {
    expect(kept(selection)).toEqual(expected);
  });

  it("reports patterns that match nothing", () => {
    expect(selectOperations(operations, { only: ["lsit"], skip: ["PUT /**"] }).unmatched).toEqual(["lsit", "PUT /**"]);
  });
});

describe("the response type of a call", () => {
  const answer = (responses: object) => {
    const text = [
      ...printRest(
        contractWith(
          { A: { type: "object", properties: { a: {} } } },
          { "/x": { get: { operationId: "x", responses } } },
        ),
      ).values(),
    ].join("\n");
    const type = /export function x\([^]*?Promise<(.*)> \{/.exec(text)?.[1] ?? "";
    return type.startsWith("X") ? (new RegExp(`export type ${type} = (.*);`).exec(text)?.[1] ?? type) : type;
  };
  const a = okay({ $ref: "#/components/schemas/A" })["200"];

  it.each<[object, string]>([
    [{ 200: a }, "A"],
    [{ 204: { description: "" } }, "undefined"],
    [{}, "undefined"],
    [{ 302: { description: "" } }, "undefined"],
    [{ default: a }, "A"],
    [{ 200: a, default: { description: "" } }, "A"],
    [{ 200: a, 202: { description: "" } }, "A | undefined"],
    [{ 200: a, 201: okay({ type: "string" })["200"] }, "A | string"],
    [okay({ type: ["string", "null"] }), "string | null"],
    [okay({ type: "array", items: { $ref: "#/components/schemas/A" } }), "A[]"],
    [okay({ type: "object", properties: { b: {} } }), "XAnswer"],
    [okay(true), "unknown"],
    [{ 200: { description: "", content: { "application/pdf": {} } } }, "Blob"],
    [{ 200: { description: "", content: { "text/csv": {} } } }, "string"],
  ])("%j is %s", (responses, expected) => {
    expect(answer(responses)).toBe(expected);
  });
});

describe("missing information in the contract", () => {
  it.each<[number, string, unknown]>([
    [
      0,
      "a field of every kind",
      { type: "object", properties: { a: { type: "string" }, b: { type: "null" }, c: { const: { x: null } } } },
    ],
    [1, "a field without words", { type: "object", properties: { a: {} } }],
    [1, "a field that may be anything", { type: "object", properties: { a: true } }],
    [1, "a list of what?", { type: "array" }],
    [1, "a free object", { type: "object" }],
    [
      1,
      "other keys beside fields",
      { type: "object", properties: { a: { type: "string" } }, additionalProperties: true },
    ],
    [
      1,
      "a required field that is not declared",
      { type: "object", required: ["a"], properties: { b: { type: "string" } } },
    ],
    [1, "a union that anything fits", { type: "object", properties: { a: { anyOf: [{ type: "string" }, {}] } } }],
    [
      1,
      "a name for anything, used twice",
      {
        type: "object",
        properties: { a: { $ref: "#/components/schemas/Any" }, b: { $ref: "#/components/schemas/Any" } },
      },
    ],
    [2, "two fields", { type: "object", properties: { a: {}, b: { type: "array", items: {} } } }],
  ])("is counted: %i for %s", (untyped, _name, subject) => {
    const paths = { "/s": { get: { operationId: "s", responses: okay(subject) } } };
    const data = { ...contractWith({}, paths), components: { schemas: { Any: {} } } };
    expect(plan(data).untyped).toBe(untyped);
    const text = [...printRest(data)]
      .filter(([path]) => !path.startsWith("wire/") && path.endsWith(".ts"))
      .map(([, each]) => each);
    const places =
      text
        .join("\n")
        .replace(/error: unknown/g, "")
        .match(/\bunknown\b/g) ?? [];
    expect(places).toHaveLength(untyped);
  });
});

describe("tags", () => {
  it("group the README, below their parent tags", () => {
    const contract = contractWith(
      {},
      { "/a": { get: { operationId: "a", tags: ["moorings"], responses: okay({ type: "string" }) } } },
      "3.2.0",
    );
    const tags = [
      { name: "moorings", parent: "boats", summary: "Where boats lie." },
      { name: "boats", parent: "moorings" },
    ];
    expect(printRest({ ...contract, tags }).get("README.md")).toContain(
      "### [boats / moorings](api/calls/moorings.md)\n\nWhere boats lie.\n",
    );
  });
});
