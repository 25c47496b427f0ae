import type { Choice, ChoiceValue, Reference, Shape } from "../contract/model.js";
import { kindOf } from "../problem/kindOf.js";
import { below, type PointerPlace } from "../problem/place.js";
import { didYouMean } from "../text/nearest.js";
import { isData, listMember, member, textMember, type Data } from "../text/parseData.js";
import { mergeReferences, type MergeContext } from "./mergeShapes.js";
import { readAnnotations } from "./readAnnotations.js";
import { readConstraints } from "./readConstraints.js";
import { readRecord, saysRecord } from "./readRecord.js";
import { readUnion } from "./readUnion.js";
import type { SchemaReader } from "./schemaReader.js";
import { nothing, unsaid } from "./unsaid.js";

const typeNames = ["string", "integer", "number", "boolean", "object", "array", "null"] as const;
/** "file" is OpenAPI 2.0's. */
type TypeName = (typeof typeNames)[number] | "file";

const compositions = ["$ref", "allOf", "oneOf", "anyOf"];

/** Reads one schema object (JSON Schema 2020-12, OpenAPI 3.0 dialect included) into a reference. */
export function readSchema(schema: Data, place: PointerPlace, reader: SchemaReader): Reference {
  const read = readReference(schema, place, reader);
  const { kind } = read.shape;
  if (kind !== "record" && kind !== "union" && kind !== "choice") return read;
  const { description } = readAnnotations(schema);
  return description === undefined ? read : { ...read, shape: { ...read.shape, description } };
}

function readReference(schema: Data, place: PointerPlace, reader: SchemaReader): Reference {
  noteUntypable(schema, place, reader);
  // Most schemas are composed of nothing; they are read without looking for parts.
  if (!compositions.some((key) => Object.hasOwn(schema, key))) {
    const [own = { shape: unsaid, nullable: false }] = ownPart(schema, place, reader);
    return saysNull(schema) ? { shape: own.shape, nullable: true } : own;
  }
  const parts = [
    ...refPart(schema, place, reader),
    ...ownPart(schema, place, reader),
    ...allOfParts(schema, place, reader),
    ...unionParts(schema, place, reader),
  ];
  const [first = { shape: unsaid, nullable: false }, ...rest] = parts;
  const merged = rest.reduce((left, right) => mergeReferences(left, right, mergeContext(place, reader)), first);
  return saysNull(schema) ? { shape: merged.shape, nullable: true } : merged;
}

/** Keywords that no type can say; what they forbid is left to the server. */
const untypable = ["not", "if", "dependentRequired", "dependentSchemas", "dependencies", "contains", "propertyNames"];

function noteUntypable(schema: Data, place: PointerPlace, reader: SchemaReader): void {
  for (const key of untypable) {
    if (!Object.hasOwn(schema, key)) continue;
    const message = `\`${key}\` is beyond what a type can say; the type allows what it forbids.`;
    reader.document.note("contract.wider", message, below(place, key));
  }
}

const mostMerges = 4_000;
const deepestMerge = 40;

function mergeContext(place: PointerPlace, reader: SchemaReader): MergeContext {
  return {
    resolve: (reference: Reference) => reader.resolve(reference),
    conflict: (where: string) => {
      const what = where === "" ? "The merged schemas" : `The merged schemas' \`${where}\``;
      reader.document.note("contract.conflict", `${what} cannot both hold; the first one is used.`, place);
    },
    together: (a, b) => (reader.mergeDepth > 0 ? reader.mergedType(a, b) : undefined),
    // Unions merged with unions grow without measure.
    within: (merge, first) => {
      if (++reader.merges > mostMerges || reader.mergeDepth >= deepestMerge) {
        const message = "Too many schemas are merged here; the type is that of the first, and allows more.";
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

/** The type that satisfies two named ones, as the definition of the pair. */
export function mergeNamed(a: Reference, b: Reference, place: PointerPlace, reader: SchemaReader): Reference {
  const context = mergeContext(place, reader);
  return mergeReferences(reader.resolve(a), reader.resolve(b), context);
}

/** Null in the dresses that stand beside a type: 3.0's `nullable` and the common vendor mark. */
function saysNull(schema: Data): boolean {
  return member(schema, "nullable") === true || member(schema, "x-nullable") === true;
}

function refPart(schema: Data, place: PointerPlace, reader: SchemaReader): Reference[] {
  const ref = textMember(schema, "$ref");
  return ref === undefined ? [] : [reader.reference(ref, below(place, "$ref"))];
}

function allOfParts(schema: Data, place: PointerPlace, reader: SchemaReader): Reference[] {
  const members = listMember(schema, "allOf") ?? [];
  return members.map((each, at) => {
    const ref = isData(each) && Object.keys(each).length === 1 ? textMember(each, "$ref") : undefined;
    const inside = below(place, "allOf", at);
    const read = ref === undefined ? reader.read(each, inside) : reader.baseReference(ref, below(inside, "$ref"));
    // Nothing of an allOf member alone decides about null: 3.0 authors put `nullable` beside `allOf`.
    return members.length === 1 && saysNull(schema) ? { shape: read.shape, nullable: true } : read;
  });
}

function unionParts(schema: Data, place: PointerPlace, reader: SchemaReader): Reference[] {
  const found: Reference[] = [];
  for (const keyword of ["oneOf", "anyOf"] as const) {
    const members = listMember(schema, keyword);
    if (members) {
      const union = readUnion(schema, members, below(place, keyword), reader);
      if (union) found.push(union);
    }
  }
  return found;
}

/** What the schema says itself, apart from references and compositions; nothing when it says nothing. */
function ownPart(schema: Data, place: PointerPlace, reader: SchemaReader): Reference[] {
  const values = choiceValues(schema) ?? composedValues(schema, place);
  if (values) return [values];
  const types = typesOf(schema, place, reader);
  if (types.length === 0) {
    const guessed = guessType(schema);
    if (guessed === undefined) return [];
    return [{ shape: readTyped(guessed, schema, place, reader), nullable: !hasOnlyOwn(schema) }];
  }
  const solid = types.filter((type) => type !== "null");
  const nullable = solid.length < types.length;
  const shapes = solid.map((type) => readTyped(type, schema, place, reader));
  const [only] = shapes;
  if (!only) return [{ shape: nothing, nullable: true }];
  return [
    {
      shape:
        shapes.length === 1 ? only : { kind: "union", members: shapes.map((shape) => ({ shape, nullable: false })) },
      nullable,
    },
  ];
}

/** Properties without a type say nothing about null on their own, but beside a composition that decides they must not forbid it. */
function hasOnlyOwn(schema: Data): boolean {
  return compositions.every((key) => member(schema, key) === undefined);
}

function typesOf(schema: Data, place: PointerPlace, reader: SchemaReader): TypeName[] {
  const said = member(schema, "type");
  if (said === undefined || said === null) return [];
  const list: readonly unknown[] = Array.isArray(said) ? (said as unknown[]) : [said];
  return list.map((each) => {
    const known = typeNames.find((name) => name === each);
    if (known) return known;
    if (each === "file" && reader.document.dialect === "2.0") return "file";
    const recased = typeNames.find((name) => typeof each === "string" && name === each.toLowerCase());
    if (recased) {
      reader.document.note(
        "contract.irregular",
        `\`type\` is written in lower case: \`${recased}\`.`,
        below(place, "type"),
      );
      return recased;
    }
    const hint = typeof each === "string" ? didYouMean(each, typeNames) : undefined;
    throw reader.document.fault(
      "contract.invalid",
      `\`type\` has to be one of the JSON Schema types, and is ${kindOf(each)}.`,
      below(place, "type"),
      hint,
    );
  });
}

function guessType(schema: Data): TypeName | undefined {
  if (saysRecord(schema)) return "object";
  if (member(schema, "items") !== undefined || member(schema, "prefixItems") !== undefined) return "array";
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

function readTyped(type: TypeName, schema: Data, place: PointerPlace, reader: SchemaReader): Shape {
  const format = textMember(schema, "format");
  switch (type) {
    case "string":
      if (format === "binary") return { kind: "bytes" };
      return { kind: "text", ...tellingFormat(format), ...readConstraints(schema, "text") };
    case "integer":
      return { kind: "integer", ...tellingFormat(format), ...readConstraints(schema, "number") };
    case "number":
      return format === "int32" || format === "int64"
        ? { kind: "integer", format, ...readConstraints(schema, "number") }
        : { kind: "number", ...tellingFormat(format), ...readConstraints(schema, "number") };
    case "boolean":
      return { kind: "boolean" };
    case "array":
      return readList(schema, place, reader);
    case "object":
      return readRecord(schema, place, reader);
    case "file":
      return { kind: "bytes" };
    case "null":
      return nothing;
  }
}

/** A format is one word; prose that landed there tells nothing. */
function tellingFormat(format: string | undefined): { format?: string } {
  return format !== undefined && /^[\w.:/+-]{1,40}$/.test(format) ? { format } : {};
}

function readList(schema: Data, place: PointerPlace, reader: SchemaReader): Shape {
  const items = member(schema, "items");
  // Before 2020-12 a list of schemas stood in `items` itself, and the rest in `additionalItems`.
  if (Array.isArray(items)) return readTuple(items, "items", "additionalItems", schema, place, reader);
  const prefix = listMember(schema, "prefixItems");
  if (prefix && prefix.length > 0) return readTuple(prefix, "prefixItems", "items", schema, place, reader);
  const hasItems = items !== undefined && items !== false;
  return {
    kind: "list",
    item: reader.read(hasItems ? items : true, below(place, "items")),
    ...readConstraints(schema, "list"),
  };
}

function readTuple(
  listed: readonly unknown[],
  key: string,
  restKey: string,
  schema: Data,
  place: PointerPlace,
  reader: SchemaReader,
): Shape {
  const items = listed.map((each, at) => reader.read(each, below(place, key, at)));
  const rest = member(schema, restKey) ?? member(schema, "unevaluatedItems");
  const { minItems = 0 } = readConstraints(schema, "list").constraints ?? {};
  return {
    kind: "tuple",
    items,
    // JSON Schema says what stands where, not that it is there (2020-12, section 10.3.1.1).
    ...(minItems >= items.length ? {} : { needed: minItems }),
    ...(rest === false ? {} : { rest: reader.read(rest ?? true, below(place, restKey)) }),
  };
}

/** The type of constants that are lists or objects: exactly their values. */
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
  // Values that are lists or objects: their types are what the rest of the schema says.
  if (scalars.length + (nullable ? 1 : 0) < listed.length) return undefined;
  const values: Choice[] = [...new Set(scalars)].map((value) => ({ value }));
  const [only] = values;
  if (!only) return { shape: nothing, nullable: true };
  // "type: [string, null]" beside an enum without null: null is not among the values, so it is not allowed.
  return { shape: values.length === 1 ? { kind: "literal", value: only.value } : { kind: "choice", values }, nullable };
}
