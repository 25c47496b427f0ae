import type { Randomness } from "./randomness.js";

export type Json = Record<string, unknown>;
export type Version = "2.0" | "3.0" | "3.1" | "3.2";

export interface SchemaContext {
  readonly random: Randomness;
  readonly version: Version;
  /** The names of schemas to which a reference may lead. */
  readonly names: readonly string[];
  /** The names of objects, for `allOf` and discriminators. */
  readonly records: readonly string[];
  /** The possible names of fields and parameters. */
  readonly fieldNames: readonly string[];
  readonly depth: number;
}

/** Words that must be escaped, and some that need not be. */
export const oddNames = [
  "id",
  "size",
  "+1",
  "-1",
  "@timestamp",
  "x5t#S256",
  "class",
  "default",
  "a b",
  "kebab-case",
  "höhe",
  "名前",
  "with`tick",
  'with"quote',
  "${x}",
  "*/",
  "_group",
  "group",
  "9lives",
  "",
  "then",
  "a.b",
];
/** Names of members that every object, string or list has anyway. */
export const inheritedNames = ["constructor", "toString", "valueOf", "length"];
const words = "Closes */ a comment, opens /* another, `tick`, ${code}, \\ and @internal.\r\nSecond line\u2028third.";
const formats = ["date", "date-time", "uuid", "email", "uri", "int64-as-text", "prose with spaces"];

export function reference(name: string, { version }: Pick<SchemaContext, "version">): Json {
  const pointer = name.replaceAll("~", "~0").replaceAll("/", "~1");
  return { $ref: `#/${version === "2.0" ? "definitions" : "components/schemas"}/${encodeURIComponent(pointer)}` };
}

const isNewer = (version: Version): boolean => version === "3.1" || version === "3.2";

/** Returns a schema of any kind, with everything its version allows. */
export function makeSchema(context: SchemaContext): unknown {
  const { random, depth, version } = context;
  const plain = depth <= 0 || random.chance(0.45) ? makeScalar(context) : makeComposed(context);
  if (typeof plain !== "object" || plain === null) return plain;
  return annotated(nullable(plain as Json, context), random, version);
}

function annotated(schema: Json, random: Randomness, version: Version): Json {
  const isAlone = "$ref" in schema && !isNewer(version);
  if (isAlone) return schema;
  const more: Json = {};
  if (random.chance(0.15)) more["description"] = random.hit("description", words);
  if (random.chance(0.08)) more["title"] = random.hit("title", "A title");
  if (random.chance(0.08) && version !== "2.0") more["deprecated"] = random.hit("deprecated", true);
  if (random.chance(0.05)) more["example"] = random.hit("example", { $ref: "#/none", "*/": "`${x}" });
  if (random.chance(0.05)) more["default"] = random.hit("default", "*/ `${x}` default");
  if (random.chance(0.05)) more["x-extension"] = random.hit("extension", { type: "nonsense", properties: null });
  return { ...schema, ...more };
}

function nullable(schema: Json, { random, version }: SchemaContext): Json {
  if (!random.chance(0.15)) return schema;
  if (version === "2.0") return "$ref" in schema ? schema : { ...schema, "x-nullable": random.hit("x-nullable", true) };
  if (version === "3.0") {
    if ("$ref" in schema) return { allOf: [schema], nullable: random.hit("nullable beside allOf", true) };
    const listed = Array.isArray(schema["enum"]) ? { enum: [...(schema["enum"] as unknown[]), null] } : {};
    return "type" in schema ? { ...schema, ...listed, nullable: random.hit("nullable", true) } : schema;
  }
  if (typeof schema["type"] === "string" && !("enum" in schema) && !("const" in schema) && random.chance(0.5))
    return { ...schema, type: random.hit("type list with null", [schema["type"], "null"]) };
  const key = random.pick(["anyOf", "oneOf"]);
  return { [key]: random.hit(`${key} with null`, [schema, { type: "null" }]) };
}

function makeScalar(context: SchemaContext): unknown {
  const { random, version, names } = context;
  const kinds: (() => unknown)[] = [
    () => random.hit("string", { type: "string" }),
    () => random.hit("format", { type: "string", format: random.pick(formats) }),
    () => random.hit("string limits", { type: "string", minLength: 0, maxLength: 40, pattern: "^[^`]*$" }),
    () => random.hit("integer", { type: "integer", format: random.pick(["int32", "int64"]) }),
    () => random.hit("number", { type: "number", minimum: -5, maximum: 99 }),
    () => random.hit("boolean", { type: "boolean" }),
    () =>
      random.hit("enum of text", {
        type: "string",
        enum: ["a", "b c", "+1", "-1", "*/", "${x}"].slice(0, 2 + random.below(5)),
      }),
    () => random.hit("enum of numbers", { type: "integer", enum: [1, 2, -3] }),
    () => random.hit("enum without type", { enum: ["x", 1, true] }),
    () => random.hit("enum of one", { type: "string", enum: ["only"] }),
    () => random.hit("enum with a value twice", { type: "string", enum: ["p", "q", "p"] }),
    () => random.hit("unsaid", {}),
    () => random.hit("$ref", names.length > 0 ? reference(random.pick(names), context) : { type: "string" }),
    () => random.hit("$ref", names.length > 0 ? reference(random.pick(names), context) : { type: "string" }),
  ];
  if (version !== "2.0") kinds.push(() => random.hit("enum of null", { enum: ["n", null] }));
  if (isNewer(version)) {
    kinds.push(
      () => random.hit("const", { const: random.pick(["fixed", 7, true]) }),
      () => random.hit("const of an object", { const: { a: 1, "b c": ["x", null] } }),
      () => random.hit("enum of objects", { enum: [{ a: 1 }, "text", null] }),
      () => random.hit("type list", { type: ["string", "integer"] }),
      () => random.hit("boolean schema", true),
      () =>
        random.hit("content keywords", { type: "string", contentEncoding: "base64", contentMediaType: "image/png" }),
      () => random.hit("exclusive limits", { type: "number", exclusiveMinimum: -9, exclusiveMaximum: 999 }),
      () =>
        names.length > 0
          ? random.hit("$ref with siblings", { ...reference(random.pick(names), context), description: words })
          : true,
    );
  }
  return random.pick(kinds)();
}

function makeComposed(context: SchemaContext): unknown {
  const { random, version, records } = context;
  const inner = { ...context, depth: context.depth - 1 };
  const kinds: (() => unknown)[] = [
    () => makeRecord(inner),
    () => makeRecord(inner),
    () =>
      random.hit("list", {
        type: "array",
        items: makeSchema(inner),
        ...(random.chance(0.2) ? { minItems: 0, maxItems: 9 } : {}),
      }),
    () => random.hit("map", { type: "object", additionalProperties: makeSchema(inner) }),
    () => random.hit("free object", { type: "object" }),
    () =>
      records.length > 0
        ? random.hit("allOf with a reference", {
            allOf: [reference(random.pick(records), context), makeRecord(inner, "own")],
          })
        : makeRecord(inner),
    () => random.hit("allOf of one", { allOf: [makeRecord(inner)] }),
    () => random.hit("allOf of records", { allOf: [makeRecord(inner, "left"), makeRecord(inner, "right")] }),
    () => random.hit("allOf with own properties", { ...makeRecord(inner, "beside"), allOf: [makeRecord(inner, "in")] }),
  ];
  if (version !== "2.0") {
    const several = (): unknown[] => Array.from({ length: 2 + random.below(3) }, () => makeSchema(inner));
    kinds.push(
      () => random.hit("oneOf", { oneOf: several() }),
      () => random.hit("anyOf", { anyOf: several() }),
      () => random.hit("oneOf of one", { oneOf: [makeSchema(inner)] }),
      () => random.hit("not", { type: "string", not: { const: "never" } }),
      () =>
        random.hit("anyOf of required", {
          type: "object",
          properties: { one: { type: "string" }, two: { type: "integer" } },
          anyOf: [{ required: ["one"] }, { required: ["two"] }],
        }),
      () => makeTagged(inner),
    );
  }
  if (isNewer(version)) {
    kinds.push(
      () =>
        random.hit("prefixItems", {
          type: "array",
          prefixItems: [makeSchema(inner), makeSchema(inner)],
          ...(random.chance(0.5) ? { minItems: 2 } : {}),
          ...random.pick([
            { items: random.hit("items: false", false) },
            { items: random.hit("items beside prefixItems", makeSchema({ ...inner, depth: 0 })) },
            {},
          ]),
        }),
      () =>
        random.hit("patternProperties", {
          type: "object",
          patternProperties: { "^x-": makeSchema(inner) },
          additionalProperties: false,
        }),
      () => random.hit("unevaluatedProperties", { allOf: [makeRecord(inner, "seen")], unevaluatedProperties: false }),
      () =>
        random.hit("unevaluatedItems", { type: "array", prefixItems: [makeSchema(inner)], unevaluatedItems: false }),
      () => random.hit("if", { ...makeRecord(inner), if: { required: ["id"] }, then: { minProperties: 1 } }),
      () => random.hit("dependentRequired", { ...makeRecord(inner), dependentRequired: { nothing: ["id"] } }),
      () => random.hit("dependentSchemas", { ...makeRecord(inner), dependentSchemas: { nothing: { type: "object" } } }),
      () =>
        random.hit("propertyNames", {
          type: "object",
          propertyNames: { minLength: 0 },
          additionalProperties: { type: "string" },
        }),
      () => random.hit("contains", { type: "array", items: { type: "string" }, contains: true, minContains: 0 }),
      () => {
        const own = random.hit("$defs", { type: "object", properties: { deep: { type: "string" } } });
        return { $defs: { Own: own }, type: "object", properties: { own: makeSchema(inner) } };
      },
    );
  }
  return random.pick(kinds)();
}

/** @param prefix gives the fields of merged records different names */
export function makeRecord(context: SchemaContext, prefix = ""): Json {
  const { random } = context;
  const names = [
    ...new Set(Array.from({ length: 1 + random.below(5) }, () => prefix + random.pick(context.fieldNames))),
  ];
  const properties: Json = {};
  for (const name of names) {
    const schema = makeSchema({ ...context, depth: context.depth - 1 });
    Object.defineProperty(properties, name, { value: faced(schema, random, context.version), enumerable: true });
  }
  const required = names.filter(() => random.chance(0.5));
  const more: Json = {};
  if (required.length > 0) more["required"] = random.hit("required", required);
  if (random.chance(0.1)) more["additionalProperties"] = random.hit("closed record", false);
  else if (random.chance(0.1))
    more["additionalProperties"] = random.hit("map beside fields", { type: random.pick(["string", "boolean"]) });
  else if (random.chance(0.1)) more["additionalProperties"] = random.hit("open record", true);
  if (random.chance(0.9)) more["type"] = "object";
  else random.hit("record without type", 0);
  // Two closed records merged by `allOf` have no common value.
  if (prefix !== "") delete more["additionalProperties"];
  return random.hit("record", { ...more, properties });
}

function faced(schema: unknown, random: Randomness, version: Version): unknown {
  if (typeof schema !== "object" || schema === null || "$ref" in schema) return schema;
  if (random.chance(0.07)) return { ...schema, readOnly: random.hit("readOnly", true) };
  return version !== "2.0" && random.chance(0.07) ? { ...schema, writeOnly: random.hit("writeOnly", true) } : schema;
}

function makeTagged(context: SchemaContext): Json {
  const { random, records } = context;
  if (records.length < 2) return makeRecord(context);
  const [first, second] = [random.pick(records), random.pick(records)];
  if (first === second) return makeRecord(context);
  const member = (name: string, tag: string): Json => ({
    allOf: [
      reference(name, context),
      { type: "object", required: ["tag"], properties: { tag: { type: "string", enum: [tag] } } },
    ],
  });
  return random.hit("discriminator", {
    oneOf: [member(first, "first"), member(second, "second")],
    discriminator: { propertyName: "tag" },
  });
}
