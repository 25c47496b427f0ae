import { hasLinks, linkParameter } from "./pageOf.js";
import type { Content, ParameterLocation, RestOperation } from "../../core/contract/model.js";
import { resolveShape, type TypeTable } from "../../core/contract/resolveShape.js";
import { isData, member } from "../../core/text/parseData.js";
import type { PointerPlace } from "../../core/problem/place.js";
import type { ContractValidator } from "../samples/ajvForContract.js";
import type { MatchedOperation } from "./matchOperation.js";
import { queryPairs, readParameter, spreadNames, type SentParts } from "./readParameter.js";

/** An error in a request. */
export interface Misfit {
  readonly in: ParameterLocation | "body";
  readonly name: string;
  readonly message: string;
}

/** A request to the stand-in server. */
export interface SeenRequest {
  /** The query without its question mark, as it was sent. */
  readonly query: string;
  readonly header: (name: string) => string | undefined;
  readonly mediaType: string | undefined;
  /** The body's text; "" if there is none. */
  readonly body: string;
}

/** The parts of the contract that are needed to read a request. */
export interface RequestContext {
  readonly types: TypeTable;
  /** The names of credentials in the query. */
  readonly credentials: ReadonlySet<string>;
}

export interface CheckedRequest {
  readonly misfits: readonly Misfit[];
  /** The JSON body as it was sent, if there is one. */
  readonly body: unknown;
}

/** Validates a request against its operation: every parameter, the media type, and the body. */
export function checkRequest(
  { operation, rawValues }: MatchedOperation,
  request: SeenRequest,
  {
    validator,
    requestContext: { types, credentials },
  }: { readonly validator: ContractValidator; readonly requestContext: RequestContext },
): CheckedRequest {
  const inQuery = operation.parameters.filter((each) => each.in === "query");
  const declared = new Set(inQuery.map((each) => each.name));
  const known = new Set([...declared, ...credentials]);
  const parts: SentParts = { path: rawValues, query: request.query, header: request.header };
  const misfits = operation.parameters.flatMap((parameter): Misfit[] => {
    const { name, in: location } = parameter;
    const readings = readParameter(parameter, parts, { types, declared: known });
    if (readings === undefined)
      return parameter.required && location !== "querystring" ? [{ in: location, name, message: "is required" }] : [];
    const fits = readings.some((reading) =>
      // Type coercion changes the value, so it comes last.
      [false, true].some((coerce) => validator.check(parameter.schema, reading, coerce).length === 0),
    );
    if (fits) return [];
    const first = validator.check(parameter.schema, readings[0], true);
    return first.map((message) => ({ in: location, name, message }));
  });
  for (const name of unknownNames(operation, known, { query: request.query, types }))
    misfits.push({ in: "query", name, message: "is not a parameter of this operation" });
  const { body, found } = checkBody(operation, request, { validator, types });
  return { misfits: [...misfits, ...found], body };
}

/** Names in the query that are not parameters. */
function unknownNames(
  operation: RestOperation,
  declared: ReadonlySet<string>,
  { query, types }: { readonly query: string; readonly types: TypeTable },
): Set<string> {
  if (operation.parameters.some((each) => each.in === "querystring")) return new Set();
  const taken = new Set(declared);
  if (hasLinks(operation)) taken.add(linkParameter);
  for (const parameter of operation.parameters) {
    const names = spreadNames(parameter, types);
    if (!names) return new Set();
    for (const name of names) taken.add(name);
  }
  const isTaken = (name: string): boolean => taken.has(name) || taken.has(name.replace(/\[.*$/, ""));
  return new Set(queryPairs(query).flatMap(([name]) => (isTaken(name) ? [] : [name])));
}

function checkBody(
  operation: RestOperation,
  request: SeenRequest,
  { validator, types }: { readonly validator: ContractValidator; readonly types: TypeTable },
): { body: unknown; found: Misfit[] } {
  const declared = operation.body;
  const misfit = (message: string): { body: unknown; found: Misfit[] } => ({
    body: undefined,
    found: [{ in: "body", name: "body", message }],
  });
  if (!declared)
    return request.body === "" ? { body: undefined, found: [] } : misfit("is sent, but this operation has none");
  const content = contentFor(declared.contents, request.mediaType);
  // A form without fields, and an empty text or stream, are empty bodies too.
  const isEmpty = request.body === "" && (content === undefined || content.form === "json");
  if (isEmpty) return declared.required ? misfit("is required") : { body: undefined, found: [] };
  if (!content)
    return misfit(
      `has the media type ${request.mediaType ?? "(none)"}, but this operation accepts ${declared.contents.map((each) => each.mediaType).join(", ")}`,
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

/** The schema for the tag of a tagged union, because its errors are the useful ones. */
function taggedMember(content: Content, body: unknown, types: TypeTable): PointerPlace | undefined {
  const shape = resolveShape(content.type.shape, types);
  if (shape.kind !== "union" || !shape.tag || !isData(body)) return undefined;
  const value = member(body, shape.tag.field);
  const chosen = shape.members[shape.tag.values.findIndex((values) => values.includes(String(value)))];
  if (chosen?.shape.kind !== "named") return undefined;
  const place = types.get(chosen.shape.key)?.place;
  return place && "pointer" in place ? place : undefined;
}

/** Returns the content of a media type: its own, or that of a range. */
export function contentFor(contents: readonly Content[], mediaType: string | undefined): Content | undefined {
  const sent = (mediaType ?? "").split(";")[0]?.trim().toLowerCase() ?? "";
  return contents.find((content) => {
    const wanted = (content.mediaType.split(";")[0] ?? "").trim().toLowerCase();
    return wanted === sent || wanted === "*/*" || (wanted.endsWith("/*") && sent.startsWith(wanted.slice(0, -1)));
  });
}
