import type { Reference, UnionTag } from "../../contract/model.js";
import { referenceSignature } from "../../contract/sameShape.js";
import { below, type PointerPlace } from "../../problem/place.js";
import { dataMember, isData, listMember, member, textMember, type Data } from "../../text/parseData.js";
import type { SchemaReading } from "./schemaReading.js";
import { nothing } from "./unsaid.js";

/**
 * Reads `oneOf` or `anyOf`.
 *
 * @param members the alternatives
 * @returns undefined if the members differ only in their required fields, which types cannot express
 */
export function readUnion(
  schema: Data,
  members: readonly unknown[],
  { place, reader }: { readonly place: PointerPlace; readonly reader: SchemaReading },
): Reference | undefined {
  let nullable = members.some(isNull);
  const kept = new Map<string, { reference: Reference; ref: string | undefined; own: unknown }>();
  for (const [at, each] of members.entries()) {
    if (isNull(each) || onlyRequires(each)) continue;
    const reference = reader.read(each, below(place, at));
    nullable ||= reference.nullable;
    const solid: Reference = { shape: reference.shape, nullable: false };
    const signature = referenceSignature(solid);
    if (!kept.has(signature))
      kept.set(signature, { reference: solid, ref: isData(each) ? textMember(each, "$ref") : undefined, own: each });
  }
  const list = [...kept.values()];
  const [only] = list;
  if (!only) return nullable ? { shape: nothing, nullable } : undefined;
  if (list.length === 1) return { shape: only.reference.shape, nullable };
  if (list.some(({ reference }) => reference.shape.kind === "any")) return { shape: { kind: "any" }, nullable };
  const tag = readTag(schema, list);
  return {
    shape: { kind: "union", members: list.map(({ reference }) => reference), ...(tag ? { tag } : {}) },
    nullable,
  };
}

function isNull(member: unknown): boolean {
  if (!isData(member)) return false;
  const values = member["enum"];
  const onlyNull = Array.isArray(values) && values.length === 1 && values[0] === null;
  return member["type"] === "null" || member["const"] === null || onlyNull;
}

const varying = new Set(["type", "title", "description", "required", "not", "anyOf", "oneOf", "allOf"]);

/** Returns whether an alternative contains only which fields are required or forbidden. */
function onlyRequires(alternative: unknown): boolean {
  if (!isData(alternative)) return false;
  const keys = Object.keys(alternative);
  const type = member(alternative, "type");
  if (!keys.every((key) => varying.has(key)) || (type !== undefined && type !== "object")) return false;
  const nested = [
    ...(listMember(alternative, "anyOf") ?? []),
    ...(listMember(alternative, "oneOf") ?? []),
    ...(listMember(alternative, "allOf") ?? []),
    ...(member(alternative, "not") === undefined ? [] : [member(alternative, "not")]),
  ];
  return (nested.length > 0 || keys.includes("required")) && nested.every(onlyRequires);
}

/** Returns the field of a discriminator, which is a string in 2.0. */
export function tagField(schema: Data): string | undefined {
  const discriminator = member(schema, "discriminator");
  if (typeof discriminator === "string") return discriminator;
  return isData(discriminator) ? textMember(discriminator, "propertyName") : undefined;
}

/**
 * Returns the tag values of a referenced schema in a mapping: by reference, or by its name alone.
 *
 * @param ref undefined for an inline schema
 */
export function mappedValues(mapping: Data, ref: string | undefined): string[] {
  const name = ref?.split("/").pop();
  return Object.keys(mapping).filter(
    (value) => ref !== undefined && (mapping[value] === ref || mapping[value] === name),
  );
}

/**
 * Reads the discriminator (OpenAPI 3.1, section 4.8.25): the explicit mapping first, otherwise the names of the
 * referenced schemas.
 */
function readTag(schema: Data, members: readonly { ref: string | undefined; own: unknown }[]): UnionTag | undefined {
  const field = tagField(schema);
  if (field === undefined) return undefined;
  const discriminator = dataMember(schema, "discriminator") ?? {};
  const mapping = dataMember(discriminator, "mapping") ?? {};
  const other = textMember(discriminator, "defaultMapping");
  const values = members.map(({ ref, own }) => {
    if (ref === undefined) return constantsOf(own, field);
    const mapped = mappedValues(mapping, ref);
    const name = ref.split("/").pop() ?? ref;
    // OpenAPI 3.2: the schema of every value that no other member has.
    if (mapped.length === 0 && (other === ref || other === name)) return undefined;
    return mapped.length > 0 ? mapped : [name];
  });
  // A member without a name cannot be identified by the tag. The union is then not a tagged one.
  if (values.some((each) => each?.length === 0)) return undefined;
  return { field, values: values.map((each) => each ?? []) };
}

/** Returns the values of the tag in an inline member. */
function constantsOf(own: unknown, field: string): string[] {
  const properties = isData(own) ? dataMember(own, "properties") : undefined;
  const schema = properties && dataMember(properties, field);
  const listed = schema ? [member(schema, "const"), ...(listMember(schema, "enum") ?? [])] : [];
  return listed.filter((each): each is string => typeof each === "string");
}
