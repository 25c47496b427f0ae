import { describe, expect, it } from "vitest";
import { bare, readRest, readSchema } from "../../support/readRest.js";
import { contractWith } from "../../support/smallContract.js";

const text = { kind: "text" };

describe("null, in every notation", () => {
  it.each<[string, unknown, string]>([
    ["a type list", { type: ["string", "null"] }, "3.1.0"],
    ["3.0 nullable", { type: "string", nullable: true }, "3.0.3"],
    ["a vendor mark", { type: "string", "x-nullable": true }, "3.0.3"],
    ["anyOf with a null type", { anyOf: [{ type: "string" }, { type: "null" }] }, "3.1.0"],
    ["oneOf with a null constant", { oneOf: [{ type: "string" }, { const: null }] }, "3.1.0"],
    ["oneOf with an enum of null", { oneOf: [{ type: "string" }, { type: "object", enum: [null] }] }, "3.0.3"],
    ["nullable beside allOf", { allOf: [{ type: "string" }], nullable: true }, "3.0.3"],
  ])("%s", (_dress, schema, dialect) => {
    expect(bare(readSchema(schema, {}, dialect))).toEqual({ shape: text, nullable: true });
  });

  it("nullable next to a reference applies to the use, not to the type", () => {
    const { contract } = readRest(
      contractWith(
        {
          Name: { type: "string" },
          Subject: { properties: { name: { $ref: "#/components/schemas/Name", nullable: true } } },
        },
        {},
        "3.0.3",
      ),
    );
    const subject = contract.types.get("Subject")?.shape;
    expect(subject?.kind === "record" && subject.fields[0]?.type).toEqual({
      shape: { kind: "named", key: "Name" },
      nullable: true,
    });
    expect(contract.types.get("Name")?.nullable).toBe(false);
  });

  it("null among the values of an enum", () => {
    expect(bare(readSchema({ type: ["string", "null"], enum: ["a", "b", null] }))).toEqual({
      shape: { kind: "choice", values: [{ value: "a" }, { value: "b" }] },
      nullable: true,
    });
  });

  it("an enum of only null is always null", () => {
    expect(readSchema({ enum: [null] })).toEqual({ shape: { kind: "union", members: [] }, nullable: true });
  });
});

describe("scalars and enums", () => {
  it.each<[unknown, unknown]>([
    [
      { type: "integer", format: "int64" },
      { kind: "integer", format: "int64" },
    ],
    [
      { type: "number", format: "int32" },
      { kind: "integer", format: "int32" },
    ],
    [{ type: "number" }, { kind: "number" }],
    [{ type: "boolean" }, { kind: "boolean" }],
    [{ type: "string", format: "binary" }, { kind: "bytes" }],
    [
      { type: "string", format: "date" },
      { kind: "text", format: "date" },
    ],
    [{ type: "string", format: "prose that landed here, by mistake" }, { kind: "text" }],
    [{ const: "sail" }, { kind: "literal", value: "sail" }],
    [{ enum: ["only"] }, { kind: "literal", value: "only" }],
    [{ enum: ["a", "a", "b"] }, { kind: "choice", values: [{ value: "a" }, { value: "b" }] }],
    [
      { type: "object", enum: ["a", "b"] },
      { kind: "choice", values: [{ value: "a" }, { value: "b" }] },
    ],
    [{ enum: [1, "1", true] }, { kind: "choice", values: [{ value: 1 }, { value: "1" }, { value: true }] }],
    [{ pattern: "^a" }, { kind: "text", constraints: { pattern: "^a" } }],
    [{ minimum: 3 }, { kind: "number", constraints: { minimum: 3 } }],
    [true, { kind: "any" }],
    [{}, { kind: "any" }],
    [null, { kind: "any" }],
    [false, { kind: "union", members: [] }],
    [
      { type: ["string", "integer"] },
      {
        kind: "union",
        members: [
          { shape: text, nullable: false },
          { shape: { kind: "integer" }, nullable: false },
        ],
      },
    ],
  ])("%j", (schema, shape) => {
    expect(bare(readSchema(schema).shape)).toEqual(shape);
  });

  it("an exclusive bound as a boolean, as in 3.0, and as a number", () => {
    expect(bare(readSchema({ type: "integer", minimum: 1, exclusiveMinimum: true }, {}, "3.0.3").shape)).toEqual({
      kind: "integer",
      constraints: { exclusiveMinimum: 1 },
    });
    expect(bare(readSchema({ type: "integer", exclusiveMinimum: 1 }).shape)).toEqual({
      kind: "integer",
      constraints: { exclusiveMinimum: 1 },
    });
  });
});

describe("lists, maps and tuples", () => {
  it.each<[unknown, unknown]>([
    [{ type: "array" }, { kind: "list", item: { shape: { kind: "any" }, nullable: false } }],
    [
      { items: { type: "string" }, minItems: 2 },
      { kind: "list", item: { shape: text, nullable: false }, constraints: { minItems: 2 } },
    ],
    [
      { type: "array", prefixItems: [{ type: "string" }], items: false },
      { kind: "tuple", items: [{ shape: text, nullable: false }], needed: 0 },
    ],
    [{ type: "object" }, { kind: "map", value: { shape: { kind: "any" }, nullable: false } }],
    [
      { type: "object", additionalProperties: { type: "string" } },
      { kind: "map", value: { shape: text, nullable: false } },
    ],
    [
      { type: "object", patternProperties: { "^x": { type: "string" } } },
      { kind: "map", value: { shape: text, nullable: false } },
    ],
    [
      { type: "object", additionalProperties: false },
      { kind: "record", fields: [], closed: true },
    ],
  ])("%j", (schema, shape) => {
    expect(bare(readSchema(schema).shape)).toEqual(shape);
  });
});

describe("objects", () => {
  const fieldsOf = (schema: unknown, others: Record<string, unknown> = {}) => {
    const { shape } = readSchema(schema, others);
    if (shape.kind !== "record") throw new Error(`a ${shape.kind}`);
    return shape;
  };

  it("reads presence, directions, defaults and descriptions of fields", () => {
    const { fields } = fieldsOf({
      required: ["id"],
      properties: {
        id: { type: "string", readOnly: true },
        secret: { type: "string", writeOnly: true, description: " Hush. ", deprecated: true, default: "x" },
      },
    });
    expect(fields.map(({ place: _place, ...field }) => field)).toEqual([
      { name: "id", type: { shape: text, nullable: false }, required: true, face: "answer" },
      {
        name: "secret",
        type: { shape: text, nullable: false },
        required: false,
        face: "request",
        default: "x",
        description: "Hush.",
        deprecated: "",
      },
    ]);
  });

  it("gives a required field that is not declared an unknown type", () => {
    expect(fieldsOf({ type: "object", required: ["ghost"] }).fields).toMatchObject([
      { name: "ghost", required: true, type: { shape: { kind: "any" } } },
    ]);
  });

  it("has a type for other keys next to declared ones", () => {
    expect(
      fieldsOf({ properties: { a: { type: "string" } }, additionalProperties: { type: "integer" } }).rest?.shape,
    ).toEqual({ kind: "integer" });
  });

  it("supports a field named __proto__", () => {
    const schema = JSON.parse(
      '{"properties": {"__proto__": {"type": "string"}}, "required": ["__proto__"]}',
    ) as unknown;
    expect(fieldsOf(schema).fields.map((field) => field.name)).toEqual(["__proto__"]);
  });
});

describe("allOf", () => {
  const others = {
    Base: { type: "object", required: ["id"], properties: { id: { type: "string" }, kind: { type: "string" } } },
  };

  it("with one member is that member", () => {
    expect(readSchema({ allOf: [{ $ref: "#/components/schemas/Base" }], description: "words" }, others).shape).toEqual({
      kind: "named",
      key: "Base",
    });
  });

  it("merges objects, and gives a repeated field the narrower type", () => {
    const { shape } = readSchema(
      {
        allOf: [
          { $ref: "#/components/schemas/Base" },
          { properties: { kind: { const: "boat" }, length: { type: "number" } }, required: ["kind"] },
        ],
      },
      others,
    );
    expect(bare(shape)).toEqual({
      kind: "record",
      fields: [
        { name: "id", type: { shape: text, nullable: false }, required: true },
        { name: "kind", type: { shape: { kind: "literal", value: "boat" }, nullable: false }, required: true },
        { name: "length", type: { shape: { kind: "number" }, nullable: false }, required: false },
      ],
    });
  });

  it("distributes over a union, and drops members that contradict", () => {
    const union = {
      oneOf: [
        { properties: { kind: { const: "a" }, x: { type: "string" } } },
        { properties: { kind: { const: "b" } } },
      ],
    };
    const { shape } = readSchema({ allOf: [union, { properties: { kind: { const: "a" } } }] });
    expect(shape.kind).toBe("record");
  });

  it("reports contradicting parts, and uses the first one", () => {
    const { contract, problems } = readRest(
      contractWith({
        Subject: { allOf: [{ properties: { a: { type: "string" } } }, { properties: { a: { type: "boolean" } } }] },
      }),
    );
    expect(problems).toMatchObject([{ code: "contract.conflict", level: "warning" }]);
    expect(bare(contract.types.get("Subject")?.shape ?? { kind: "any" })).toMatchObject({
      fields: [{ name: "a", type: { shape: text } }],
    });
  });

  it("keeps a property that refers back to its own type", () => {
    const { shape } = readSchema(
      {
        properties: {
          parent: { allOf: [{ $ref: "#/components/schemas/Subject" }, { description: "up" }], nullable: true },
        },
      },
      {},
      "3.0.3",
    );
    expect(bare(shape)).toMatchObject({
      fields: [{ name: "parent", type: { shape: { kind: "named", key: "Subject" }, nullable: true } }],
    });
  });
});

describe("unions", () => {
  const others = {
    Cat: { type: "object", properties: { kind: { type: "string" } } },
    Dog: { type: "object", properties: { kind: { const: "dog" } } },
  };
  const both = [{ $ref: "#/components/schemas/Cat" }, { $ref: "#/components/schemas/Dog" }];

  it("reads the discriminator's mapping, and uses names if there is none", () => {
    const { shape } = readSchema(
      { oneOf: both, discriminator: { propertyName: "kind", mapping: { c: "#/components/schemas/Cat", cat: "Cat" } } },
      others,
    );
    expect(shape.kind === "union" && shape.tag).toEqual({ field: "kind", values: [["c", "cat"], ["Dog"]] });
  });

  it("is not a tagged union if a member has no name", () => {
    const { shape } = readSchema(
      { oneOf: [...both, { type: "string" }], discriminator: { propertyName: "kind" } },
      others,
    );
    expect(shape.kind === "union" && shape.tag).toBeUndefined();
  });

  it("with one member is that member; without an effect if members only vary what is required", () => {
    expect(readSchema({ oneOf: [both[0]] }, others).shape).toEqual({ kind: "named", key: "Cat" });
    expect(
      readSchema({
        type: "object",
        properties: { a: { type: "string" } },
        anyOf: [{ required: ["a"] }, { required: ["b"] }],
      }).shape.kind,
    ).toBe("record");
  });

  it("with fields next to it has them in every member", () => {
    const { shape } = readSchema({
      properties: { id: { type: "string" } },
      oneOf: [{ properties: { a: { type: "string" } } }, { properties: { b: { type: "string" } } }],
    });
    const names =
      shape.kind === "union"
        ? shape.members.map(({ shape: member }) =>
            member.kind === "record" ? member.fields.map((field) => field.name) : [],
          )
        : [];
    expect(names).toEqual([
      ["id", "a"],
      ["id", "b"],
    ]);
  });

  it("that accepts everything is unknown", () => {
    expect(readSchema({ anyOf: [{ type: "string" }, {}] }).shape).toEqual({ kind: "any" });
  });
});
