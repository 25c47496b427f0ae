import type { Content, Parameter, ParameterLocation, RestOperation } from "../core/contract/model.js";
import { resolveShape, type TypeTable } from "../core/contract/resolveShape.js";
import { isData, member } from "../core/text/parseData.js";
import type { PointerPlace } from "../core/problem/place.js";
import type { ContractValidator } from "./ajvForContract.js";
import type { MatchedOperation } from "./matchOperation.js";

/** One thing about a request that does not fit the contract. */
export interface Misfit {
  readonly in: ParameterLocation | "body";
  readonly name: string;
  readonly message: string;
}

/** A request as the stand-in sees it. */
export interface SeenRequest {
  readonly query: URLSearchParams;
  readonly header: (name: string) => string | undefined;
  readonly mediaType: string | undefined;
  /** The body's text; "" when there is none. */
  readonly body: string;
}

export interface CheckedRequest {
  readonly misfits: readonly Misfit[];
  /** The JSON body as sent, when there is one. */
  readonly body: unknown;
}

/** Holds a request against the operation it is for: every parameter, the media type, and the body. */
export function checkRequest(
  { operation, pathValues }: MatchedOperation,
  request: SeenRequest,
  validator: ContractValidator,
  types: TypeTable,
): CheckedRequest {
  const misfits = operation.parameters.flatMap((parameter) =>
    checkParameter(parameter, pathValues, request, validator),
  );
  const declared = new Set(operation.parameters.filter((each) => each.in === "query").map((each) => each.name));
  const free = operation.parameters.some(
    (each) =>
      each.in === "query" &&
      ["record", "map", "named", "any", "union"].includes(each.type.shape.kind) &&
      each.style !== "json",
  );
  for (const name of free ? [] : new Set(request.query.keys())) {
    if (!declared.has(name) && !isCredential(operation, name))
      misfits.push({ in: "query", name, message: "is not a parameter of this operation" });
  }
  const { body, found } = checkBody(operation, request, validator, types);
  return { misfits: [...misfits, ...found], body };
}

/** Keys in the query belong to auth, which is any name the operation's schemes may use. */
function isCredential(operation: RestOperation, name: string): boolean {
  return operation.auth.length > 0 && /key|token|auth/i.test(name);
}

function checkParameter(
  parameter: Parameter,
  pathValues: ReadonlyMap<string, string>,
  request: SeenRequest,
  validator: ContractValidator,
): Misfit[] {
  const value = valueOf(parameter, pathValues, request);
  const { name, in: location } = parameter;
  if (location === "querystring") return [];
  if (value === undefined)
    return parameter.required && !isSpread(parameter) ? [{ in: location, name, message: "is required" }] : [];
  return validator.check(parameter.schema, value, true).map((message) => ({ in: location, name, message }));
}

/** Records in the query are spread over names of their own; what is there cannot be told by the parameter's name. */
function isSpread(parameter: Parameter): boolean {
  return (
    parameter.style === "deepObject" ||
    (parameter.explode && ["record", "map", "named"].includes(parameter.type.shape.kind))
  );
}

function valueOf(parameter: Parameter, pathValues: ReadonlyMap<string, string>, request: SeenRequest): unknown {
  const list = parameter.type.shape.kind === "list";
  const separators: Readonly<Record<string, string>> = { spaceDelimited: " ", pipeDelimited: "|" };
  const split = (text: string): unknown => (list ? text.split(separators[parameter.style] ?? ",") : text);
  if (parameter.style === "json") {
    const text = request.query.get(parameter.name);
    return text === null ? undefined : parsed(text);
  }
  switch (parameter.in) {
    case "path":
      return split(pathValues.get(parameter.name) ?? "");
    case "query": {
      const all = request.query.getAll(parameter.name);
      const [only] = all;
      if (only === undefined) return undefined;
      return list && parameter.explode ? all : split(only);
    }
    case "header": {
      const text = request.header(parameter.name);
      return text === undefined ? undefined : split(text);
    }
    case "querystring":
      return undefined;
    case "cookie":
      return cookieValue(request.header("cookie") ?? "", parameter.name, split);
  }
}

function cookieValue(header: string, name: string, split: (text: string) => unknown): unknown {
  const pair = header.split(/;\s*/).find((each) => each.startsWith(`${name}=`));
  if (pair === undefined) return undefined;
  const text = pair.slice(name.length + 1);
  try {
    return split(decodeURIComponent(text));
  } catch {
    return split(text);
  }
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return text;
  }
}

function checkBody(
  operation: RestOperation,
  request: SeenRequest,
  validator: ContractValidator,
  types: TypeTable,
): { body: unknown; found: Misfit[] } {
  const declared = operation.body;
  const misfit = (message: string): { body: unknown; found: Misfit[] } => ({
    body: undefined,
    found: [{ in: "body", name: "body", message }],
  });
  if (!declared)
    return request.body === "" ? { body: undefined, found: [] } : misfit("is sent, and this operation takes none");
  if (request.body === "") return declared.required ? misfit("is required") : { body: undefined, found: [] };
  const content = contentFor(declared.contents, request.mediaType);
  if (!content)
    return misfit(
      `has the media type ${request.mediaType ?? "(none)"}, and this operation takes ${declared.contents.map((each) => each.mediaType).join(", ")}`,
    );
  if (content.form !== "json") return { body: undefined, found: [] };
  let body: unknown;
  try {
    body = JSON.parse(request.body) as unknown;
  } catch {
    return misfit("is not valid JSON");
  }
  const schema = taggedMember(content, body, types) ?? content.schema;
  const found = validator.check(schema, body, false).map((message): Misfit => ({ in: "body", name: "body", message }));
  return { body, found };
}

/** The schema a tagged union's tag points to: its complaints are the ones that help. */
function taggedMember(content: Content, body: unknown, types: TypeTable): PointerPlace | undefined {
  const shape = resolveShape(content.type.shape, types);
  if (shape.kind !== "union" || !shape.tag || !isData(body)) return undefined;
  const value = member(body, shape.tag.field);
  const chosen = shape.members[shape.tag.values.findIndex((values) => values.includes(String(value)))];
  if (chosen?.shape.kind !== "named") return undefined;
  const place = types.get(chosen.shape.key)?.place;
  return place && "pointer" in place ? place : undefined;
}

function contentFor(contents: readonly Content[], mediaType: string | undefined): Content | undefined {
  const sent = (mediaType ?? "").split(";")[0]?.trim().toLowerCase() ?? "";
  return contents.find((content) => {
    const wanted = (content.mediaType.split(";")[0] ?? "").trim().toLowerCase();
    return wanted === sent || wanted === "*/*" || (wanted.endsWith("/*") && sent.startsWith(wanted.slice(0, -1)));
  });
}
