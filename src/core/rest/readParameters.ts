import type { Parameter, ParameterStyle } from "../contract/model.js";
import { kindOf } from "../problem/kindOf.js";
import { below, type PointerPlace } from "../problem/place.js";
import { dataMember, isData, listMember, member, textMember, type Data } from "../text/parseData.js";
import { readOlderParameter } from "./older/readOlderParameter.js";
import { mediaForm } from "./readMediaType.js";
import { annotate, readAnnotations } from "./schemas/readAnnotations.js";
import type { Located } from "./restDocument.js";
import type { SchemaReader } from "./schemas/schemaReader.js";

const locations = ["path", "query", "querystring", "header", "cookie"] as const;
type Location = (typeof locations)[number];

/** Headers that OpenAPI leaves to the connection (section 4.8.12.2.1). */
const reservedHeaders = new Set(["accept", "content-type", "authorization"]);

/**
 * Returns every parameter object of an operation, with references followed. Those of the path items come first, and the
 * operation's own override.
 *
 * @param owners the path items, then the operation
 */
export function parameterNodes(owners: readonly Located<Data>[], reader: SchemaReader): Located<Data>[] {
  const byKey = new Map<string, Located<Data>>();
  for (const owner of owners) {
    (listMember(owner.value, "parameters") ?? []).forEach((entry, at) => {
      const place = below(owner.place, "parameters", at);
      const found = reader.document.object({ value: entry, place }, "parameter");
      byKey.set(`${String(member(found.value, "in"))} ${String(member(found.value, "name"))}`, found);
    });
  }
  return [...byKey.values()];
}

/**
 * Reads the parameters of an operation, without its body.
 *
 * @param path the path template; undefined for requests from the server
 * @param nodes the parameter objects
 */
export function readParameters(
  path: string | undefined,
  nodes: readonly Located<Data>[],
  { place, reader }: { readonly place: PointerPlace; readonly reader: SchemaReader },
): Parameter[] {
  const found = nodes.flatMap((node) => readParameter(node, reader) ?? []);
  if (path === undefined) return found.filter((parameter) => parameter.in !== "path");
  const declared = new Set(found.filter((parameter) => parameter.in === "path").map((parameter) => parameter.name));
  for (const [, name = ""] of path.matchAll(/\{([^{}]+)\}/g)) {
    if (declared.has(name)) continue;
    // An undeclared part of the template must still be filled, and can only be a string.
    const message = `The path ${path} has \`{${name}}\`, but no parameter declares it. It is read as a string.`;
    reader.document.note("contract.invalid", message, place);
    declared.add(name);
    found.push({
      name,
      in: "path",
      type: { shape: { kind: "text" }, nullable: false },
      required: true,
      style: "simple",
      explode: false,
      allowReserved: false,
      schema: place,
      place,
    });
  }
  return found.filter((parameter) => parameter.in !== "path" || path.includes(`{${parameter.name}}`));
}

function readParameter(node: Located<Data>, reader: SchemaReader): Parameter | undefined {
  const { value, place } = node;
  const { document } = reader;
  if (document.dialect === "2.0" && (member(value, "in") === "body" || member(value, "in") === "formData"))
    return undefined;
  const location = locationOf(value, place, reader);
  const name = nameOf(value, location, { place, schemaReader: reader });
  if (location === "header" && reservedHeaders.has(name.toLowerCase())) return undefined;
  // The name of a header is a token (RFC 9110, section 5.1). Any other name can never be sent.
  if (location === "header" && !/^[A-Za-z0-9!#$%&'*+.^_`|~-]+$/.test(name)) {
    document.note("contract.invalid", `A header cannot be named \`${name}\`. The parameter is skipped.`, place);
    return undefined;
  }
  const required = location === "path" || member(value, "required") === true;
  if (document.dialect === "2.0") {
    const older = readOlderParameter(node, location, reader);
    return { name, in: location, required, ...readAnnotations(value), place, ...older };
  }
  const content = dataMember(value, "content");
  const mediaType = content && Object.keys(content)[0];
  const schemaNode = content && mediaType !== undefined ? dataMember(content, mediaType) : value;
  const schemaPlace =
    mediaType === undefined ? below(place, "schema") : below(below(place, "content", mediaType), "schema");
  const schema = schemaNode && member(schemaNode, "schema");
  const fallback = isData(schema) ? member(schema, "default") : undefined;
  const style =
    mediaType === undefined
      ? readStyle(value, location, { place, schemaReader: reader })
      : contentStyle(mediaType, location);
  const explode = member(value, "explode");
  const parameter: { -readonly [K in keyof Parameter]: Parameter[K] } = {
    name,
    in: location,
    required,
    place,
    type: reader.read(schema, schemaPlace),
    schema: schemaPlace,
    style,
    explode: typeof explode === "boolean" && !content ? explode : style === "form" || style === "deepObject",
    allowReserved: member(value, "allowReserved") === true,
  };
  if (fallback !== undefined) parameter.default = fallback;
  annotate(parameter, value);
  return parameter;
}

function locationOf(value: Data, place: PointerPlace, { document }: SchemaReader): Location {
  const said = member(value, "in");
  const location = locations.find((each) => each === said);
  if (location) return location;
  const recased = locations.find((each) => typeof said === "string" && each === said.trim().toLowerCase());
  if (recased) {
    document.note("contract.irregular", `\`in\` must be \`${recased}\`, in lower case.`, below(place, "in"));
    return recased;
  }
  const message = `The parameter \`${String(member(value, "name"))}\` must be in path, query, header or cookie, but is in ${kindOf(said)}.`;
  throw document.fault("contract.invalid", message, below(place, "in"));
}

function nameOf(
  value: Data,
  location: Location,
  { place, schemaReader: { document } }: { readonly place: PointerPlace; readonly schemaReader: SchemaReader },
): string {
  const name = textMember(value, "name");
  if (name !== undefined && name !== "") return name;
  // The whole query string needs no name in the request.
  if (location === "querystring") return "query";
  const message = `A parameter must have a name, but it is ${kindOf(member(value, "name"))}.`;
  throw document.fault("contract.invalid", message, place);
}

const stylesByLocation: Readonly<Record<Location, readonly ParameterStyle[]>> = {
  path: ["simple", "label", "matrix"],
  query: ["form", "spaceDelimited", "pipeDelimited", "deepObject"],
  querystring: ["form"],
  header: ["simple"],
  // The style `cookie` of 3.2 differs from `form` only in percent-encoding.
  cookie: ["form"],
};

function readStyle(
  value: Data,
  location: Location,
  { place, schemaReader: { document } }: { readonly place: PointerPlace; readonly schemaReader: SchemaReader },
): ParameterStyle {
  const said = member(value, "style");
  const [fallback = "form"] = stylesByLocation[location];
  const style = stylesByLocation[location].find((each) => each === said);
  if (style === undefined && said !== undefined && !(location === "cookie" && said === "cookie")) {
    const message = `\`style\` of a ${location} parameter cannot be ${kindOf(said)}. It is read as ${fallback}.`;
    document.note("contract.irregular", message, below(place, "style"));
  }
  return style ?? fallback;
}

function contentStyle(mediaType: string, location: Location): ParameterStyle {
  if (mediaForm(mediaType) === "json") return "json";
  return location === "path" || location === "header" ? "simple" : "form";
}
