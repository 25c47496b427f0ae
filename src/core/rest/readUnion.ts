import type { Reference, UnionTag } from "../contract/model.js";
import { referenceSignature } from "../contract/sameShape.js";
import { below, type PointerPlace } from "../problem/place.js";
import { dataMember, isData, textMember, type Data } from "../text/parseData.js";
import type { SchemaReader } from "./schemaReader.js";

/** Reads `oneOf` or `anyOf`; undefined when the members only vary what is required, which no type can say. */
export function readUnion(
  schema: Data,
  members: readonly unknown[],
  place: PointerPlace,
  reader: SchemaReader,
): Reference | undefined {
  let nullable = members.some(isNull);
  const kept = new Map<string, { reference: Reference; ref: string | undefined }>();
  for (const [at, member] of members.entries()) {
    if (isNull(member) || onlyRequires(member)) continue;
    const reference = reader.read(member, below(place, at));
    nullable ||= reference.nullable;
    const solid: Reference = { shape: reference.shape, nullable: false };
    const signature = referenceSignature(solid);
    if (!kept.has(signature))
      kept.set(signature, { reference: solid, ref: isData(member) ? textMember(member, "$ref") : undefined });
  }
  const list = [...kept.values()];
  const [only] = list;
  if (!only) return nullable ? { shape: { kind: "any" }, nullable } : undefined;
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

function onlyRequires(member: unknown): boolean {
  if (!isData(member)) return false;
  const keys = Object.keys(member).filter((key) => key !== "type" && key !== "title" && key !== "description");
  return keys.length > 0 && keys.every((key) => key === "required" || key === "not");
}

/** The discriminator (OpenAPI 3.1, section 4.8.25): explicit mapping first, else the names of the referenced schemas. */
function readTag(schema: Data, members: readonly { ref: string | undefined }[]): UnionTag | undefined {
  const discriminator = dataMember(schema, "discriminator");
  const field = discriminator && textMember(discriminator, "propertyName");
  if (discriminator === undefined || field === undefined) return undefined;
  const mapping = dataMember(discriminator, "mapping") ?? {};
  const values = members.map(({ ref }) => {
    const name = ref?.split("/").pop();
    const mapped = Object.keys(mapping).filter(
      (value) => ref !== undefined && (mapping[value] === ref || mapping[value] === name),
    );
    return mapped.length > 0 ? mapped : name === undefined ? [] : [name];
  });
  // A member without a name cannot be told apart by the tag; then the union is not a tagged one.
  return values.every((each) => each.length > 0) ? { field, values } : undefined;
}
