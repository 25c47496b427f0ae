import type { Field, Reference, Shape } from "../../contract/model.js";
import { kindOf } from "../../problem/kindOf.js";
import { below, keyBelow, type PointerPlace } from "../../problem/place.js";
import { dataMember, isData, listMember, member, type Data } from "../../text/parseData.js";
import { keywordsOf, speaksOf } from "../keywords.js";
import { annotate } from "./readAnnotations.js";
import type { SchemaReading } from "./schemaReading.js";
import { unsaid } from "./unsaid.js";

/** Returns whether a schema without a type describes an object. */
export function saysRecord(schema: Data): boolean {
  return keywordsOf("record").some((key) => member(schema, key) !== undefined);
}

/**
 * Reads an object schema: a record, or a map if no field is declared.
 *
 * @throws Fault if the properties are not an object
 */
export function readRecord(schema: Data, place: PointerPlace, reader: SchemaReading): Shape {
  const properties = member(schema, "properties");
  if (properties !== undefined && properties !== null && !isData(properties)) {
    throw reader.document.fault(
      "contract.invalid",
      `\`properties\` must be an object, but is ${kindOf(properties)}.`,
      below(place, "properties"),
    );
  }
  const required = new Set((listMember(schema, "required") ?? []).filter((name) => typeof name === "string"));
  const fields = isData(properties)
    ? Object.keys(properties).map((name) =>
        readField(name, properties[name], { required: required.has(name), place, reader }),
      )
    : [];
  for (const name of required) {
    if (!isData(properties) || !Object.hasOwn(properties, name))
      fields.push(undeclaredField(name, below(place, "required")));
  }
  const rest = readRest(schema, place, reader);
  const closed =
    rest === undefined &&
    (member(schema, "additionalProperties") === false || member(schema, "unevaluatedProperties") === false);
  if (fields.length === 0 && !closed) return { kind: "map", value: rest ?? { shape: unsaid, nullable: false } };
  return { kind: "record", fields, ...(rest ? { rest } : {}), ...(closed ? { closed } : {}) };
}

/** @param place the place of the record */
function readField(
  name: string,
  schema: unknown,
  {
    required,
    place,
    reader,
  }: { readonly required: boolean; readonly place: PointerPlace; readonly reader: SchemaReading },
): Field {
  const field: { -readonly [K in keyof Field]: Field[K] } = {
    name,
    type: reader.read(schema, below(place, "properties", name)),
    required,
    place: keyBelow(place, "properties", name),
  };
  if (!isData(schema)) return field;
  const topics = reader.topicsOf(schema);
  if (topics & speaksOf.field) {
    if (member(schema, "readOnly") === true) field.face = "answer";
    else if (member(schema, "writeOnly") === true) field.face = "request";
    const fallback = member(schema, "default");
    if (fallback !== undefined) field.default = fallback;
  }
  if (topics & speaksOf.annotations) annotate(field, schema);
  return field;
}

/** `required` contains a field that `properties` does not declare. The field is present, and its type is unknown. */
function undeclaredField(name: string, place: PointerPlace): Field {
  return { name, type: { shape: unsaid, nullable: false }, required: true, place };
}

/** Returns the shape of undeclared keys: the declared one, or that of a key pattern if there is only one. */
function readRest(schema: Data, place: PointerPlace, reader: SchemaReading): Reference | undefined {
  const additional = member(schema, "additionalProperties") ?? member(schema, "unevaluatedProperties");
  const patterns = dataMember(schema, "patternProperties") ?? {};
  const shapes = Object.keys(patterns).map((pattern) =>
    reader.read(patterns[pattern], below(place, "patternProperties", pattern)),
  );
  if (additional === true || isData(additional))
    shapes.push(reader.read(additional, below(place, "additionalProperties")));
  const [only] = shapes;
  if (shapes.length <= 1) return only;
  return { shape: { kind: "union", members: shapes }, nullable: false };
}
