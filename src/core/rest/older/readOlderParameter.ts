import type { Parameter, ParameterLocation, ParameterStyle } from "../../contract/model.js";
import { kindOf } from "../../problem/kindOf.js";
import { below } from "../../problem/place.js";
import { member, type Data } from "../../text/parseData.js";
import type { Located } from "../restDocument.js";
import type { SchemaReader } from "../schemas/schemaReader.js";

/**
 * Reads the type and style of an OpenAPI 2.0 parameter, which has its type in itself (section "Parameter Object").
 *
 * @param location where the parameter is sent
 */
export function readOlderParameter(
  { value, place }: Located<Data>,
  location: ParameterLocation,
  reader: SchemaReader,
): Pick<Parameter, "type" | "schema" | "style" | "explode" | "allowReserved" | "default"> {
  const fallback = member(value, "default");
  return {
    type: reader.read(inlineSchema(value), place),
    schema: place,
    ...collectionStyle({ value, place }, location, reader),
    allowReserved: false,
    ...(fallback === undefined ? {} : { default: fallback }),
  };
}

const parameterMembers = new Set(["name", "in", "required", "description", "collectionFormat", "allowEmptyValue"]);

/** Returns the members of a parameter or header that belong to a schema. */
export function inlineSchema(value: Data): Data {
  return Object.fromEntries(Object.entries(value).filter(([key]) => !parameterMembers.has(key)));
}

const stylesByFormat: Readonly<Record<string, ParameterStyle>> = {
  csv: "form",
  multi: "form",
  ssv: "spaceDelimited",
  tsv: "tabDelimited",
  pipes: "pipeDelimited",
};

/** Returns how a list is written: `collectionFormat`, of which only `multi` repeats the name. */
export function collectionStyle(
  { value, place }: Located<Data>,
  location: ParameterLocation | "formData",
  { document }: Pick<SchemaReader, "document">,
): { style: ParameterStyle; explode: boolean } {
  const said = member(value, "collectionFormat");
  const format = typeof said === "string" && Object.hasOwn(stylesByFormat, said) ? said : "csv";
  if (said !== undefined && format !== said) {
    const message = `\`collectionFormat\` cannot be ${kindOf(said)}. It is read as csv.`;
    document.note("contract.irregular", message, below(place, "collectionFormat"));
  }
  if (location === "path" || location === "header") return { style: "simple", explode: false };
  const isList = member(value, "type") === "array";
  return { style: stylesByFormat[format] ?? "form", explode: format === "multi" || !isList };
}
