import type { Content, Field, Response } from "../contract/model.js";
import { below, type PointerPlace } from "../problem/place.js";
import { dataMember, isData, member, type Data } from "../text/parseData.js";
import { mediaTypes } from "./older/readOlderBody.js";
import { inlineSchema } from "./older/readOlderParameter.js";
import { readAnnotations } from "./schemas/readAnnotations.js";
import { contentOf, readContents } from "./readContents.js";
import type { Located } from "./restDocument.js";
import type { SchemaReader } from "./schemas/schemaReader.js";

const statusPattern = /^([1-5]\d\d|[1-5]XX|default)$/;

/**
 * Reads the responses of an operation by code, range and default (OpenAPI 3.1, section 4.8.16).
 *
 * @param operation the operation object
 * @param place the place of the operation
 */
export function readResponses(operation: Data, place: PointerPlace, reader: SchemaReader): Response[] {
  const node = member(operation, "responses");
  if (node === undefined || node === null) return [];
  const responses = reader.document.object({ value: node, place: below(place, "responses") }, "responses");
  const found = new Map<string, Response>();
  for (const [key, entry] of Object.entries(responses.value)) {
    if (key.startsWith("x-")) continue;
    const status = key.toUpperCase() === "DEFAULT" ? "default" : key.toUpperCase();
    const at = below(responses.place, key);
    if (!statusPattern.test(status)) {
      const message = `\`${key}\` is not a status code, a range such as 4XX, or default. It is ignored.`;
      reader.document.note("contract.invalid", message, at);
      continue;
    }
    const response = reader.document.object({ value: entry, place: at }, "response");
    const { description } = readAnnotations(response.value);
    found.set(status, {
      status,
      ...(description === undefined ? {} : { description }),
      contents:
        reader.document.dialect === "2.0" ? olderContents(operation, response, reader) : readContents(response, reader),
      headers: readHeaders(response, reader),
      place: at,
    });
  }
  return [...found.values()];
}

/** OpenAPI 2.0: one schema, in every media type that the operation produces. */
function olderContents(operation: Data, { value, place }: Located<Data>, reader: SchemaReader): Content[] {
  const schema = member(value, "schema");
  if (schema === undefined || schema === null) return [];
  const produces = mediaTypes(operation, reader.document.root, "produces");
  const isFile = isData(schema) && member(schema, "type") === "file";
  const at = below(place, "schema");
  const type = reader.read(schema, at);
  const fallback = isFile ? "application/octet-stream" : "application/json";
  return (produces.length > 0 ? produces : [fallback]).map((mediaType): Content => {
    const content = contentOf(mediaType, type, at);
    return isFile ? { ...content, form: "bytes", type: { shape: { kind: "bytes" }, nullable: false } } : content;
  });
}

/** Reads the headers of a response. `Content-Type` follows from the media type (section 4.8.17). */
function readHeaders({ value, place }: Located<Data>, reader: SchemaReader): Field[] {
  const headers = dataMember(value, "headers") ?? {};
  return Object.keys(headers)
    .filter((name) => name.toLowerCase() !== "content-type")
    .map((name): Field => {
      const header = reader.document.object({ value: headers[name], place: below(place, "headers", name) }, "header");
      const isOlder = reader.document.dialect === "2.0";
      const content = dataMember(header.value, "content");
      const mediaType = content && Object.keys(content)[0];
      const inContent = content && mediaType !== undefined ? dataMember(content, mediaType) : undefined;
      const type = isOlder
        ? reader.read(inlineSchema(header.value), header.place)
        : reader.read(member(inContent ?? header.value, "schema"), below(header.place, "schema"));
      return {
        name,
        type,
        required: member(header.value, "required") === true,
        ...readAnnotations(header.value),
        place: header.place,
      };
    });
}
