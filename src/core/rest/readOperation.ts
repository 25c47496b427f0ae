import type { Content, Parameter, ParameterLocation, RequestBody, Response, RestOperation } from "../contract/model.js";
import { below, type PointerPlace } from "../problem/place.js";
import { dataMember, isData, listMember, member, textMember, type Data } from "../text/parseData.js";
import { mediaForm } from "./readMediaType.js";
import { readAnnotations } from "./readAnnotations.js";
import { kindOf, type Located } from "./restDocument.js";
import type { SchemaReader } from "./schemaReader.js";

export interface PathItem {
  readonly path: string;
  readonly item: Located<Data>;
}

/** Reads one operation (OpenAPI 3.1, section 4.8.10). Throws a Fault when a part it needs is broken or unsupported. */
export function readOperation(
  method: string,
  { path, item }: PathItem,
  node: Located<Data>,
  reader: SchemaReader,
): RestOperation {
  const { value, place } = node;
  refuseUnsupported(path, item, node, reader);
  const tags = (listMember(value, "tags") ?? []).filter(
    (tag): tag is string => typeof tag === "string" && tag.trim() !== "",
  );
  const body = readBody(value, place, reader);
  const operationId = textMember(value, "operationId")?.trim();
  const summary = textMember(value, "summary")?.trim();
  return {
    ...(operationId ? { operationId } : {}),
    method,
    path,
    group: tags[0] ?? firstFixedSegment(path),
    tags,
    parameters: readParameters(path, item, node, reader),
    ...(body ? { body } : {}),
    responses: readResponses(value, place, reader),
    auth: readAuth(value, reader.document.root),
    ...(summary ? { summary } : {}),
    ...readAnnotations(value),
    place,
  };
}

/** What would be silently wrong if it were left out: a host of its own, and an answer that is only a stream. */
function refuseUnsupported(path: string, item: Located<Data>, node: Located<Data>, { document }: SchemaReader): void {
  for (const { value, place } of [item, node]) {
    if ((listMember(value, "servers") ?? []).length > 0) {
      throw document.unsupported(
        `${path} has servers of its own, which is not supported yet.`,
        below(place, "servers"),
      );
    }
  }
}

function firstFixedSegment(path: string): string {
  return path.split("/").find((segment) => segment !== "" && !segment.includes("{")) ?? "root";
}

/** Header names that OpenAPI leaves to the connection (section 4.8.12.2.1). */
const reservedHeaders = new Set(["accept", "content-type", "authorization"]);

function readParameters(path: string, item: Located<Data>, node: Located<Data>, reader: SchemaReader): Parameter[] {
  const byKey = new Map<string, Parameter>();
  for (const owner of [item, node]) {
    const listed = listMember(owner.value, "parameters") ?? [];
    listed.forEach((entry, at) => {
      const found = reader.document.object(
        { value: entry, place: below(owner.place, "parameters", at) },
        "A parameter",
      );
      const parameter = readParameter(found, reader);
      if (parameter) byKey.set(`${parameter.in} ${parameter.name}`, parameter);
    });
  }
  for (const [, name = ""] of path.matchAll(/\{([^{}]+)\}/g)) {
    if (byKey.has(`path ${name}`)) continue;
    // A template part that nobody declares still has to be filled, and can only be text.
    reader.document.note(
      "contract.invalid",
      `The path ${path} has \`{${name}}\`, and no parameter declares it; it is taken as text.`,
      node.place,
    );
    byKey.set(`path ${name}`, {
      name,
      in: "path",
      type: { shape: { kind: "text" }, nullable: false },
      required: true,
      style: "simple",
      explode: false,
      allowReserved: false,
      place: node.place,
    });
  }
  return [...byKey.values()].filter((parameter) => parameter.in !== "path" || path.includes(`{${parameter.name}}`));
}

function readParameter({ value, place }: Located<Data>, reader: SchemaReader): Parameter | undefined {
  const { document } = reader;
  const name = textMember(value, "name");
  const location = member(value, "in");
  if (name === undefined || name === "")
    throw document.fault(
      "contract.invalid",
      `A parameter needs a name, and it is ${kindOf(member(value, "name"))}.`,
      place,
    );
  if (location !== "path" && location !== "query" && location !== "header" && location !== "cookie") {
    throw document.fault(
      "contract.invalid",
      `The parameter \`${name}\` has to be in path, query, header or cookie; it is in ${kindOf(location)}.`,
      below(place, "in"),
    );
  }
  if (location === "header" && reservedHeaders.has(name.toLowerCase())) return undefined;
  const required = location === "path" || member(value, "required") === true;
  if (location === "cookie") {
    if (required) throw document.unsupported(`The required cookie parameter \`${name}\` is not supported yet.`, place);
    return undefined;
  }
  const content = dataMember(value, "content");
  const mediaType = content && Object.keys(content)[0];
  const schemaNode = content && mediaType !== undefined ? dataMember(content, mediaType) : value;
  const schemaPlace = mediaType === undefined ? below(place, "schema") : below(place, "content", mediaType, "schema");
  const schema = schemaNode && member(schemaNode, "schema");
  const fallback = isData(schema) ? member(schema, "default") : undefined;
  const style = content ? "json" : readStyle(value, location);
  const explode = member(value, "explode");
  return {
    name,
    in: location,
    type: reader.read(schema, schemaPlace),
    required,
    style,
    explode: typeof explode === "boolean" ? explode : style === "form" || style === "deepObject",
    allowReserved: member(value, "allowReserved") === true,
    ...(fallback === undefined ? {} : { default: fallback }),
    ...readAnnotations(value),
    place,
  };
}

const stylesByLocation = {
  path: ["simple", "label", "matrix"],
  query: ["form", "spaceDelimited", "pipeDelimited", "deepObject"],
  header: ["simple"],
} as const;

function readStyle(value: Data, location: Exclude<ParameterLocation, "cookie">): Parameter["style"] {
  const said = member(value, "style");
  return stylesByLocation[location].find((style) => style === said) ?? stylesByLocation[location][0];
}

function readBody(operation: Data, place: PointerPlace, reader: SchemaReader): RequestBody | undefined {
  const node = member(operation, "requestBody");
  if (node === undefined || node === null) return undefined;
  const body = reader.document.object({ value: node, place: below(place, "requestBody") }, "A request body");
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

function readContents({ value, place }: Located<Data>, reader: SchemaReader): Content[] {
  const content = dataMember(value, "content") ?? {};
  return Object.keys(content).map((mediaType) => {
    const node = content[mediaType];
    const type = reader.read(
      isData(node) ? member(node, "schema") : undefined,
      below(place, "content", mediaType, "schema"),
    );
    const form = mediaForm(mediaType);
    const unsaidBytes = form === "bytes" && type.shape.kind === "any";
    const unsaidText = form === "text" && type.shape.kind === "any";
    return {
      mediaType,
      form,
      type: unsaidBytes
        ? { shape: { kind: "bytes" }, nullable: false }
        : unsaidText
          ? { shape: { kind: "text" }, nullable: false }
          : type,
    };
  });
}

const statusPattern = /^([1-5]\d\d|[1-5]XX|default)$/;

function readResponses(operation: Data, place: PointerPlace, reader: SchemaReader): Response[] {
  const node = member(operation, "responses");
  if (node === undefined || node === null) return [];
  const responses = reader.document.object({ value: node, place: below(place, "responses") }, "`responses`");
  const found: Response[] = [];
  for (const [key, entry] of Object.entries(responses.value)) {
    if (key.startsWith("x-")) continue;
    const status = key.toUpperCase() === "DEFAULT" ? "default" : key.toUpperCase();
    const at = below(responses.place, key);
    if (!statusPattern.test(status)) {
      reader.document.note(
        "contract.invalid",
        `\`${key}\` is not a status code, a range such as 4XX, or default; it is ignored.`,
        at,
      );
      continue;
    }
    const response = reader.document.object({ value: entry, place: at }, "A response");
    const { description } = readAnnotations(response.value);
    const contents = readContents(response, reader);
    if (contents.length > 0 && contents.every((content) => content.form === "events")) {
      throw reader.document.unsupported(`The answer ${status} is a stream, which is not supported yet.`, at);
    }
    found.push({
      status,
      ...(description === undefined ? {} : { description }),
      contents,
      place: at,
    });
  }
  return found;
}

function readAuth(operation: Data, root: Data): string[][] {
  const declared = listMember(operation, "security") ?? listMember(root, "security") ?? [];
  return declared.filter(isData).map((alternative) => Object.keys(alternative));
}
