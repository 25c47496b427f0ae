import type { Choice, ChoiceValue, Constraints, Reference, Shape } from "../../contract/model.js";
import { kindOf } from "../../problem/kindOf.js";
import { below, type PointerPlace } from "../../problem/place.js";
import { didYouMean } from "../../text/nearest.js";
import { isData, listMember, member, textMember, type Data } from "../../text/parseData.js";
import { mergeReferences, type MergeContext } from "./mergeShapes.js";
import { keywordsOf, speaksOf } from "../keywords.js";
import { plainShapes } from "./plainSchema.js";
import { readAnnotations } from "./readAnnotations.js";
import { readConstraints } from "./readConstraints.js";
import { readRecord, saysRecord } from "./readRecord.js";
import { readUnion } from "./readUnion.js";
import type { SchemaReading } from "./schemaReading.js";
import { nothing, unsaid } from "./unsaid.js";

const typeNames = ["string", "integer", "number", "boolean", "object", "array", "null"] as const;
/** "file" is from OpenAPI 2.0. */
type TypeName = (typeof typeNames)[number] | "file";

/**
 * Reads one schema object (JSON Schema 2020-12, with the dialect of OpenAPI 3.0) into a reference.
 *
 * @throws Fault if the schema is not valid
 */
export function readSchema(schema: Data, place: PointerPlace, reader: SchemaReading): Reference {
  const topics = reader.topicsOf(schema);
  const read = readReference(schema, topics, { place, reader });
  if ((topics & speaksOf.annotations) === 0) return read;
  const { kind } = read.shape;
  if (kind !== "record" && kind !== "union" && kind !== "choice") return read;
  const { description } = readAnnotations(schema);
  return description === undefined ? read : { ...read, shape: { ...read.shape, description } };
}

function readReference(
  schema: Data,
  topics: number,
  { place, reader }: { readonly place: PointerPlace; readonly reader: SchemaReading },
): Reference {
  if (topics & speaksOf.untypable) noteUntypable(schema, place, reader);
  const isNullable = (topics & speaksOf.null) !== 0 && saysNull(schema);
  // Most schemas have no composition and are read without looking for parts.
  if ((topics & speaksOf.composition) === 0) {
    const own = ownPart(schema, topics, { place, reader }) ?? { shape: unsaid, nullable: false };
    return isNullable ? { shape: own.shape, nullable: true } : own;
  }
  const own = ownPart(schema, topics, { place, reader });
  const parts = [
    ...refPart(schema, place, reader),
    ...(own ? [own] : []),
    ...allOfParts(schema, place, reader),
    ...unionParts(schema, place, reader),
  ];
  const [first = { shape: unsaid, nullable: false }, ...rest] = parts;
  const merged = rest.reduce(
    (left, right) => mergeReferences(left, right, { context: mergeContext(place, reader) }),
    first,
  );
  return isNullable ? { shape: merged.shape, nullable: true } : merged;
}

/** Notes the keywords that types cannot express. The server checks what they forbid. */
function noteUntypable(schema: Data, place: PointerPlace, reader: SchemaReading): void {
  for (const key of keywordsOf("untypable")) {
    if (!Object.hasOwn(schema, key)) continue;
    const message = `\`${key}\` cannot be expressed by a type. The type allows values that it forbids.`;
    reader.document.note("contract.wider", message, below(place, key));
  }
}

const mostMerges = 4_000;
const deepestMerge = 40;

function mergeContext(place: PointerPlace, reader: SchemaReading): MergeContext {
  return {
    resolve: (reference: Reference) => reader.resolve(reference),
    conflict: (where: string) => {
      const what = where === "" ? "The merged schemas" : `The merged schemas' \`${where}\``;
      reader.document.note("contract.conflict", `${what} contradict each other. The first one is used.`, place);
    },
    together: (a, b) => (reader.mergeDepth > 0 ? reader.mergedType(a, b) : undefined),
    // Merges of unions with unions can grow without limit.
    within: (merge, first) => {
      if (++reader.merges > mostMerges || reader.mergeDepth >= deepestMerge) {
        const message = "Too many schemas are merged here. The type is that of the first and allows more.";
        reader.document.note("contract.wider", message, place);
        return first;
      }
      reader.mergeDepth++;
      try {
        return merge();
      } finally {
        reader.mergeDepth--;
      }
    },
  };
}

/** Returns the type that satisfies two named ones, as the definition of the pair. */
export function mergeNamed(
  a: Reference,
  b: Reference,
  { place, reader }: { readonly place: PointerPlace; readonly reader: SchemaReading },
): Reference {
  const context = mergeContext(place, reader);
  return mergeReferences(reader.resolve(a), reader.resolve(b), { context });
}

/**
 * Returns whether a schema allows null in a way that stands next to a type: `nullable` of 3.0, and the common vendor
 * extension.
 */
function saysNull(schema: Data): boolean {
  return member(schema, "nullable") === true || member(schema, "x-nullable") === true;
}

function refPart(schema: Data, place: PointerPlace, reader: SchemaReading): Reference[] {
  const ref = textMember(schema, "$ref");
  return ref === undefined ? [] : [reader.reference(ref, place)];
}

function allOfParts(schema: Data, place: PointerPlace, reader: SchemaReading): Reference[] {
  const members = listMember(schema, "allOf") ?? [];
  return members.map((each, at) => {
    const ref = isData(each) && Object.keys(each).length === 1 ? textMember(each, "$ref") : undefined;
    const inside = below(place, "allOf", at);
    const read = ref === undefined ? reader.read(each, inside) : reader.baseReference(ref, inside);
    // No allOf member decides about null alone: authors of 3.0 write `nullable` next to `allOf`.
    return members.length === 1 && saysNull(schema) ? { shape: read.shape, nullable: true } : read;
  });
}

function unionParts(schema: Data, place: PointerPlace, reader: SchemaReading): Reference[] {
  const found: Reference[] = [];
  for (const keyword of ["oneOf", "anyOf"] as const) {
    const members = listMember(schema, keyword);
    if (members) {
      const union = readUnion(schema, members, { place: below(place, keyword), reader });
      if (union) found.push(union);
    }
  }
  return found;
}

/** Reads the schema's own keywords, apart from references and compositions; undefined if there are none. */
function ownPart(
  schema: Data,
  topics: number,
  { place, reader }: { readonly place: PointerPlace; readonly reader: SchemaReading },
): Reference | undefined {
  if (topics & speaksOf.values) {
    const values = choiceValues(schema) ?? composedValues(schema, place);
    if (values) return values;
  }
  const said = member(schema, "type");
  // Nearly always one valid type.
  if (isTypeName(said)) {
    if (said === "null") return { shape: nothing, nullable: true };
    return { shape: readTyped(said, schema, { topics, place, reader }), nullable: false };
  }
  const types = typesOf(said, place, reader);
  if (types.length === 0) {
    const guessed = guessType(schema, topics);
    if (guessed === undefined) return undefined;
    // Properties without a type do not decide about null on their own. Next to a composition that decides, they must
    // not forbid it.
    const isAlone = keywordsOf("composition").every((key) => member(schema, key) === undefined);
    return { shape: readTyped(guessed, schema, { topics, place, reader }), nullable: !isAlone };
  }
  const solid = types.filter((type) => type !== "null");
  const nullable = solid.length < types.length;
  const shapes = solid.map((type) => readTyped(type, schema, { topics, place, reader }));
  const [only] = shapes;
  if (!only) return { shape: nothing, nullable: true };
  const shape: Shape =
    shapes.length === 1 ? only : { kind: "union", members: shapes.map((each) => ({ shape: each, nullable: false })) };
  return { shape, nullable };
}

const typeNameSet: ReadonlySet<unknown> = new Set(typeNames);

function isTypeName(said: unknown): said is (typeof typeNames)[number] {
  return typeNameSet.has(said);
}

function typesOf(said: unknown, place: PointerPlace, reader: SchemaReading): TypeName[] {
  if (said === undefined || said === null) return [];
  const list: readonly unknown[] = Array.isArray(said) ? (said as unknown[]) : [said];
  return list.map((each) => {
    if (isTypeName(each)) return each;
    if (each === "file" && reader.document.dialect === "2.0") return "file";
    const recased = typeNames.find((name) => typeof each === "string" && name === each.toLowerCase());
    if (recased) {
      reader.document.note(
        "contract.irregular",
        `\`type\` must be in lower case: \`${recased}\`.`,
        below(place, "type"),
      );
      return recased;
    }
    const hint = typeof each === "string" ? didYouMean(each, typeNames) : undefined;
    throw reader.document.fault(
      "contract.invalid",
      `\`type\` must be one of the JSON Schema types, but is ${kindOf(each)}.`,
      below(place, "type"),
      hint,
    );
  });
}

function guessType(schema: Data, topics: number): TypeName | undefined {
  if ((topics & speaksOf.record) !== 0 && saysRecord(schema)) return "object";
  if (member(schema, "items") !== undefined || member(schema, "prefixItems") !== undefined) return "array";
  if ((topics & speaksOf.limits) === 0) return undefined;
  if (
    member(schema, "pattern") !== undefined ||
    member(schema, "minLength") !== undefined ||
    member(schema, "maxLength") !== undefined
  )
    return "string";
  if (
    member(schema, "minimum") !== undefined ||
    member(schema, "maximum") !== undefined ||
    member(schema, "multipleOf") !== undefined
  )
    return "number";
  return undefined;
}

function readTyped(
  type: TypeName,
  schema: Data,
  { topics, place, reader }: { readonly topics: number; readonly place: PointerPlace; readonly reader: SchemaReading },
): Shape {
  switch (type) {
    case "string":
    case "integer":
    case "number":
      return readScalar(type, schema, topics);
    case "boolean":
      return plainShapes.boolean;
    case "array":
      return readList(schema, topics, { place, reader });
    case "object":
      return readRecord(schema, place, reader);
    case "file":
      return { kind: "bytes" };
    case "null":
      return nothing;
  }
}

function readScalar(type: "string" | "integer" | "number", schema: Data, topics: number): Shape {
  const format = textMember(schema, "format");
  const limits =
    topics & speaksOf.limits ? readConstraints(schema, type === "string" ? "text" : "number").constraints : undefined;
  if (format === undefined && limits === undefined) return plainShapes[type];
  if (type === "string" && format === "binary") return { kind: "bytes" };
  // An integer, whatever the type next to it.
  const isWhole = type === "number" && (format === "int32" || format === "int64");
  const shape: { kind: "text" | "integer" | "number"; format?: string; constraints?: Constraints } = {
    kind: type === "string" ? "text" : isWhole ? "integer" : type,
  };
  if (format !== undefined && isTelling(format)) shape.format = format;
  if (limits !== undefined) shape.constraints = limits;
  return shape;
}

/** A format is one word. Prose in its place has no meaning. */
function isTelling(format: string): boolean {
  return /^[\w.:/+-]{1,40}$/.test(format);
}

function readList(
  schema: Data,
  topics: number,
  { place, reader }: { readonly place: PointerPlace; readonly reader: SchemaReading },
): Shape {
  const items = member(schema, "items");
  // Before 2020-12, `items` contained a list of schemas, and `additionalItems` the rest.
  if (Array.isArray(items)) return readTuple(items, "items", { restKey: "additionalItems", schema, place, reader });
  const prefix = listMember(schema, "prefixItems");
  if (prefix && prefix.length > 0) return readTuple(prefix, "prefixItems", { restKey: "items", schema, place, reader });
  const hasItems = items !== undefined && items !== false;
  const item = reader.read(hasItems ? items : true, below(place, "items"));
  return topics & speaksOf.limits ? { kind: "list", item, ...readConstraints(schema, "list") } : { kind: "list", item };
}

function readTuple(
  listed: readonly unknown[],
  key: string,
  {
    restKey,
    schema,
    place,
    reader,
  }: { readonly restKey: string; readonly schema: Data; readonly place: PointerPlace; readonly reader: SchemaReading },
): Shape {
  const items = listed.map((each, at) => reader.read(each, below(place, key, at)));
  const rest = member(schema, restKey) ?? member(schema, "unevaluatedItems");
  const { minItems = 0 } = readConstraints(schema, "list").constraints ?? {};
  return {
    kind: "tuple",
    items,
    // JSON Schema defines the type of each position, not that it is present (2020-12, section 10.3.1.1).
    ...(minItems >= items.length ? {} : { needed: minItems }),
    ...(rest === false ? {} : { rest: reader.read(rest ?? true, below(place, restKey)) }),
  };
}

/** Returns the type of constants that are lists or objects: exactly their values. */
function composedValues(schema: Data, place: PointerPlace): Reference | undefined {
  const constant = member(schema, "const");
  const listed = constant === undefined ? listMember(schema, "enum") : [constant];
  if (!listed || listed.length === 0) return undefined;
  const references = listed.map((value) => valueReference(value, place, 0));
  const [only] = references;
  if (only && references.length === 1) return only;
  const members = references.filter(({ shape }) => shape !== nothing);
  return { shape: { kind: "union", members }, nullable: references.length > members.length };
}

const deepestConstant = 50;

function valueReference(value: unknown, place: PointerPlace, depth: number): Reference {
  if (value === null || value === undefined) return { shape: nothing, nullable: true };
  if (depth > deepestConstant) return { shape: unsaid, nullable: true };
  const inside = (each: unknown): Reference => valueReference(each, place, depth + 1);
  if (Array.isArray(value)) return { shape: { kind: "tuple", items: value.map(inside) }, nullable: false };
  if (isData(value)) {
    const fields = Object.keys(value).map((name) => ({ name, type: inside(value[name]), required: true, place }));
    return { shape: { kind: "record", fields, closed: true }, nullable: false };
  }
  return { shape: { kind: "literal", value: value as ChoiceValue }, nullable: false };
}

function choiceValues(schema: Data): Reference | undefined {
  const constant = member(schema, "const");
  const listed = constant === undefined ? listMember(schema, "enum") : [constant];
  if (!listed || listed.length === 0) return undefined;
  const nullable = listed.includes(null);
  const scalars = listed.filter((value): value is ChoiceValue =>
    ["string", "number", "boolean"].includes(typeof value),
  );
  // Some values are lists or objects: the rest of the schema gives their types.
  if (scalars.length + (nullable ? 1 : 0) < listed.length) return undefined;
  const values: Choice[] = [...new Set(scalars)].map((value) => ({ value }));
  const [only] = values;
  if (!only) return { shape: nothing, nullable: true };
  // "type: [string, null]" next to an enum without null: null is not among the values, so it is not allowed.
  return { shape: values.length === 1 ? { kind: "literal", value: only.value } : { kind: "choice", values }, nullable };
}
