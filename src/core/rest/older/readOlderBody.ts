import type { Content, Field, FieldEncoding, RequestBody } from "../../contract/model.js";
import { below } from "../../problem/place.js";
import { listMember, member, textMember, type Data } from "../../text/parseData.js";
import { readAnnotations } from "../schemas/readAnnotations.js";
import { contentOf } from "../readContents.js";
import { mediaForm } from "../readMediaType.js";
import type { Located } from "../restDocument.js";
import type { SchemaReader } from "../schemas/schemaReader.js";
import { collectionStyle, inlineSchema } from "./readOlderParameter.js";

/** Returns the media types of an operation, otherwise the contract's (OpenAPI 2.0, `consumes` and `produces`). */
export function mediaTypes(operation: Data, root: Data, key: "consumes" | "produces"): string[] {
  const listed = listMember(operation, key) ?? listMember(root, key) ?? [];
  return listed.filter((each): each is string => typeof each === "string" && each.trim() !== "");
}

/**
 * Reads the body of an OpenAPI 2.0 operation: its `body` parameter, or its `formData` parameters as one record.
 *
 * @param operation the operation object
 * @param nodes its parameters, with references followed
 * @returns undefined if it has no body
 */
export function readOlderBody(
  operation: Data,
  nodes: readonly Located<Data>[],
  reader: SchemaReader,
): RequestBody | undefined {
  const consumes = mediaTypes(operation, reader.document.root, "consumes");
  const body = nodes.find(({ value }) => member(value, "in") === "body");
  if (body) return readBodyParameter(body, consumes, reader);
  const fields = nodes.filter(({ value }) => member(value, "in") === "formData");
  return fields.length === 0 ? undefined : readForm(fields, consumes, reader);
}

function readBodyParameter({ value, place }: Located<Data>, consumes: string[], reader: SchemaReader): RequestBody {
  const { description } = readAnnotations(value);
  const schema = below(place, "schema");
  const type = reader.read(member(value, "schema"), schema);
  const usable = consumes.filter((each) => !["multipart", "urlencoded"].includes(mediaForm(each)));
  return {
    required: member(value, "required") === true,
    contents: (usable.length > 0 ? usable : ["application/json"]).map((mediaType) =>
      contentOf(mediaType, type, schema),
    ),
    ...(description === undefined ? {} : { description }),
    place,
  };
}

function readForm(nodes: readonly Located<Data>[], consumes: string[], reader: SchemaReader): RequestBody {
  const encoding = new Map<string, FieldEncoding>();
  const fields = nodes.map((node): Field => {
    const { value, place } = node;
    const name = textMember(value, "name") ?? "";
    if (member(value, "type") === "array") encoding.set(name, collectionStyle(node, "formData", reader));
    const fallback = member(value, "default");
    return {
      name,
      type: reader.read(inlineSchema(value), place),
      required: member(value, "required") === true,
      ...(fallback === undefined ? {} : { default: fallback }),
      ...readAnnotations(value),
      place,
    };
  });
  const hasFile = nodes.some(({ value }) => member(value, "type") === "file");
  const forms = consumes.filter((each) => ["multipart", "urlencoded"].includes(mediaForm(each)));
  const fitting = hasFile ? forms.filter((each) => mediaForm(each) === "multipart") : forms;
  const fallback = hasFile ? "multipart/form-data" : "application/x-www-form-urlencoded";
  const [first] = nodes;
  if (!first) throw new Error("A form needs a field.");
  return {
    required: fields.some((field) => field.required),
    contents: (fitting.length > 0 ? fitting : [fallback]).map((mediaType): Content => ({
      mediaType,
      form: mediaForm(mediaType),
      type: { shape: { kind: "record", fields }, nullable: false },
      schema: first.place,
      ...(encoding.size > 0 ? { encoding } : {}),
    })),
    place: first.place,
  };
}
