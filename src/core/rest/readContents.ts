import type { Content, FieldEncoding, ParameterStyle, Reference, RequestBody } from "../contract/model.js";
import { isStream } from "../contract/model.js";
import { below, type PointerPlace } from "../problem/place.js";
import { dataMember, isData, member, textMember, type Data } from "../text/parseData.js";
import { mediaForm } from "./readMediaType.js";
import { readAnnotations } from "./schemas/readAnnotations.js";
import type { Located } from "./restDocument.js";
import type { SchemaReader } from "./schemas/schemaReader.js";

/**
 * Reads a request body (OpenAPI 3.1, section 4.8.13).
 *
 * @param operation the operation object
 * @param place the place of the operation
 * @returns undefined if there is no body, or no content in it
 */
export function readBody(operation: Data, place: PointerPlace, reader: SchemaReader): RequestBody | undefined {
  const node = member(operation, "requestBody");
  if (node === undefined || node === null) return undefined;
  const body = reader.document.object({ value: node, place: below(place, "requestBody") }, "requestBody");
  const contents = readContents(body, reader);
  if (contents.length === 0) return undefined;
  const { description } = readAnnotations(body.value);
  return {
    required: member(body.value, "required") === true,
    contents,
    ...(description === undefined ? {} : { description }),
    place: body.place,
  };
}

/** Reads the media types of a body or response, in the contract's order. */
export function readContents({ value, place }: Located<Data>, reader: SchemaReader): Content[] {
  const content = dataMember(value, "content") ?? {};
  return Object.keys(content).map((mediaType) => {
    const at = below(place, "content", mediaType);
    const entry = content[mediaType];
    const node = isData(entry)
      ? reader.document.object({ value: entry, place: at }, "mediaType")
      : { value: {}, place: at };
    const form = mediaForm(mediaType);
    const encoding = readEncoding(node.value);
    const { type, schema } = isStream(form) ? readItem(node, reader) : readWhole(node, reader);
    return {
      ...contentOf(mediaType, type, schema),
      ...(encoding.size > 0 ? { encoding } : {}),
    };
  });
}

/**
 * Returns the content of a media type. If the schema has no type, a media type for bytes or text gives one.
 *
 * @param schema the place of the schema
 */
export function contentOf(mediaType: string, type: Reference, schema: PointerPlace): Content {
  const form = mediaForm(mediaType);
  if (type.shape.kind === "any" && (form === "bytes" || form === "text")) {
    return { mediaType, form, type: { shape: { kind: form }, nullable: false }, schema };
  }
  return { mediaType, form, type, schema };
}

interface SchemaRead {
  readonly type: Reference;
  /** The place of the schema. */
  readonly schema: PointerPlace;
}

function readAt(schema: unknown, place: PointerPlace, reader: SchemaReader): SchemaRead {
  return { type: reader.read(schema, place), schema: place };
}

function readWhole({ value, place }: Located<Data>, reader: SchemaReader): SchemaRead {
  const item = member(value, "itemSchema");
  if (item === undefined || member(value, "schema") !== undefined)
    return readAt(member(value, "schema"), below(place, "schema"), reader);
  const { type, schema } = readAt(item, below(place, "itemSchema"), reader);
  return { type: { shape: { kind: "list", item: type }, nullable: false }, schema };
}

/**
 * Reads the type of a stream's item: `itemSchema` (OpenAPI 3.2, section 4.14.3). Before 3.2, authors described either
 * one item or the list of all items in `schema`.
 */
function readItem({ value, place }: Located<Data>, reader: SchemaReader): SchemaRead {
  const item = member(value, "itemSchema");
  if (item !== undefined) return readAt(item, below(place, "itemSchema"), reader);
  const schema = member(value, "schema");
  const whole = isData(schema) ? reader.document.deref({ value: schema, place: below(place, "schema") }) : undefined;
  // A list whose items differ by position is not a list of similar items.
  return whole &&
    isData(whole.value) &&
    member(whole.value, "type") === "array" &&
    member(whole.value, "prefixItems") === undefined
    ? readAt(member(whole.value, "items"), below(whole.place, "items"), reader)
    : readAt(schema, below(place, "schema"), reader);
}

const fieldStyles: readonly ParameterStyle[] = ["form", "spaceDelimited", "pipeDelimited", "deepObject"];

/** Reads how fields of a form are written (OpenAPI 3.1, section 4.8.15). */
function readEncoding(mediaType: Data): Map<string, FieldEncoding> {
  const found = new Map<string, FieldEncoding>();
  for (const [name, node] of Object.entries(dataMember(mediaType, "encoding") ?? {})) {
    if (!isData(node)) continue;
    const contentType = textMember(node, "contentType");
    const style = fieldStyles.find((each) => each === member(node, "style"));
    const explode = member(node, "explode");
    if (contentType === undefined && style === undefined && typeof explode !== "boolean") continue;
    found.set(name, {
      ...(contentType === undefined ? {} : { contentType }),
      ...(style === undefined ? {} : { style }),
      ...(typeof explode === "boolean" ? { explode } : {}),
    });
  }
  return found;
}
