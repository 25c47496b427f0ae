import type { Parameter, Shape } from "../../core/contract/model.js";
import { resolveShape, type TypeTable } from "../../core/contract/resolveShape.js";

/** The parts of a request with parameters, as they were sent. */
export interface SentParts {
  /** Still percent-encoded, by name. */
  readonly path: ReadonlyMap<string, string>;
  /** The query without its question mark, still percent-encoded. */
  readonly query: string;
  readonly header: (name: string) => string | undefined;
}

/** The possible meanings of a text: a value, all items of a list, or all fields of a record. */
type Kind = "value" | "list" | "record";

/**
 * Returns the possible values of a parameter by its style (OpenAPI 3.1, section 4.8.12.6; RFC 6570), the most likely
 * first. Numbers and booleans are still text.
 *
 * @param declared the names of the operation's other query parameters
 * @returns undefined if the parameter was not sent
 */
export function readParameter(
  parameter: Parameter,
  parts: SentParts,
  { types, declared }: { readonly types: TypeTable; readonly declared: ReadonlySet<string> },
): unknown[] | undefined {
  const kinds = kindsOf(parameter.type.shape, types);
  const readings = kinds.flatMap((kind) => readAs(kind, parameter, { parts, types, declared }) ?? []);
  // Null is a word, whatever else the parameter may contain.
  const [word] = kinds.includes("value") ? [] : (readAs("value", parameter, { parts, types, declared }) ?? []);
  if (word === "null") readings.push(null);
  // An empty list or record is sent as nothing.
  if (readings.length === 0) return emptyOf(kinds, parameter);
  return readings.flatMap((reading) => [reading, withJson(reading, holders), withJson(reading, scalars)]);
}

function emptyOf(kinds: readonly Kind[], parameter: Parameter): unknown[] | undefined {
  if (!parameter.required) return undefined;
  const empty = [...(kinds.includes("list") ? [[]] : []), ...(kinds.includes("record") ? [{}] : [])];
  return empty.length > 0 ? empty : undefined;
}

/** Returns the names that the fields of a record take in the query; undefined if any name is possible. */
export function spreadNames(parameter: Parameter, types: TypeTable): ReadonlySet<string> | undefined {
  const kinds = kindsOf(parameter.type.shape, types);
  if (parameter.in !== "query" || !parameter.explode || !kinds.includes("record")) return new Set();
  const shape = resolveShape(parameter.type.shape, types);
  return shape.kind === "record" && !shape.rest && shape.closed === true
    ? new Set(shape.fields.map((field) => field.name))
    : undefined;
}

function kindsOf(shape: Shape, types: TypeTable, passed: readonly Shape[] = []): Kind[] {
  const inner = resolveShape(shape, types);
  switch (inner.kind) {
    case "list":
    case "tuple":
      return ["list"];
    case "record":
    case "map":
      return ["record"];
    case "any":
      return ["value", "list", "record"];
    case "union":
      if (passed.includes(inner)) return [];
      return [...new Set(inner.members.flatMap((member) => kindsOf(member.shape, types, [...passed, inner])))];
    default:
      return ["value"];
  }
}

function readAs(
  kind: Kind,
  parameter: Parameter,
  {
    parts,
    types,
    declared,
  }: { readonly parts: SentParts; readonly types: TypeTable; readonly declared: ReadonlySet<string> },
): unknown[] | undefined {
  const { name, style, explode } = parameter;
  switch (parameter.in) {
    case "path":
      return one(fromPath(kind, parameter, parts.path.get(name)));
    case "header": {
      const text = parts.header(name);
      if (text === undefined) return undefined;
      if (style === "json") return one(parsed(text));
      return one(
        kind === "value"
          ? text
          : pieces(kind, text === "" ? [] : text.split(",").map((each) => each.trim()), { explode, decode: same }),
      );
    }
    case "cookie": {
      const pairs = (parts.header("cookie") ?? "").split(/;\s*/).map(pairOf);
      const found = pairs.find(([key]) => decoded(key) === name);
      if (!found) return undefined;
      if (style === "json") return one(parsed(decoded(found[1])));
      return one(
        kind === "value" ? decoded(found[1]) : pieces(kind, split(found[1], ","), { explode: false, decode: decoded }),
      );
    }
    case "querystring": {
      if (parts.query === "") return undefined;
      if (style === "json") return one(parsed(decoded(parts.query)));
      return [Object.fromEntries(queryPairs(parts.query))];
    }
    case "query":
      return fromQuery(kind, parameter, { query: parts.query, types, declared });
  }
}

function one(value: unknown): unknown[] | undefined {
  return value === undefined ? undefined : [value];
}

function fromPath(kind: Kind, { name, style, explode }: Parameter, raw: string | undefined): unknown {
  if (raw === undefined) return undefined;
  if (style === "json") return parsed(decoded(raw));
  if (style === "label") {
    const text = raw.replace(/^\./, "");
    return kind === "value"
      ? decoded(text)
      : pieces(kind, split(text, explode ? "." : ","), { explode, decode: decoded });
  }
  if (style === "matrix") {
    const pairs = split(raw.replace(/^;/, ""), ";").map(pairOf);
    const own = pairs.filter(([key]) => decoded(key) === name).map(([, value]) => value);
    if (kind === "value") return decoded(own[0] ?? "");
    if (!explode) return pieces(kind, split(own[0] ?? "", ","), { explode: false, decode: decoded });
    return kind === "list"
      ? own.map(decoded)
      : Object.fromEntries(pairs.map(([key, value]) => [decoded(key), decoded(value)]));
  }
  return kind === "value" ? decoded(raw) : pieces(kind, split(raw, ","), { explode, decode: decoded });
}

const separators: Readonly<Partial<Record<Parameter["style"], RegExp>>> = {
  spaceDelimited: /%20|\+/i,
  pipeDelimited: /%7C|\|/i,
  tabDelimited: /%09/i,
};

function fromQuery(
  kind: Kind,
  { name, style, explode, type }: Parameter,
  {
    query,
    types,
    declared,
  }: { readonly query: string; readonly types: TypeTable; readonly declared: ReadonlySet<string> },
): unknown[] | undefined {
  const pairs = query === "" ? [] : query.split("&").map(pairOf);
  if (style === "deepObject") return one(deep(name, pairs));
  const own = pairs.filter(([key]) => decodedQuery(key) === name).map(([, value]) => value);
  if (style === "json") return own[0] === undefined ? undefined : [parsed(decodedQuery(own[0]))];
  if (kind === "record" && explode) {
    const shape = resolveShape(type.shape, types);
    const fields = shape.kind === "record" ? new Set(shape.fields.map((field) => field.name)) : new Set<string>();
    const spread = pairs
      .map(([key, value]) => [decodedQuery(key), decodedQuery(value)] as const)
      .filter(([key]) => fields.has(key) || !declared.has(key));
    return spread.length === 0 ? undefined : [gathered(spread)];
  }
  const [first] = own;
  if (first === undefined) return undefined;
  if (kind === "value") return [decodedQuery(first)];
  if (kind === "list" && explode && !separators[style]) return [own.map(decodedQuery)];
  const separator = separators[style] ?? ",";
  return one(pieces(kind, first === "" ? [] : first.split(separator), { explode: false, decode: decodedQuery }));
}

/** `name[a][b]=c`, where repeated names are a list. */
function deep(name: string, pairs: readonly (readonly [string, string])[]): unknown {
  let found: Record<string, unknown> | undefined;
  for (const [rawKey, rawValue] of pairs) {
    const key = decodedQuery(rawKey);
    if (!key.startsWith(`${name}[`) || !key.endsWith("]")) continue;
    const path = key.slice(name.length + 1, -1).split("][");
    found ??= {};
    let node = found;
    for (const part of path.slice(0, -1)) {
      const next = Object.hasOwn(node, part) ? node[part] : undefined;
      const inner =
        typeof next === "object" && next !== null && !Array.isArray(next) ? (next as Record<string, unknown>) : {};
      define(node, part, inner);
      node = inner;
    }
    add(node, path.at(-1) ?? "", decodedQuery(rawValue));
  }
  return found;
}

function gathered(pairs: readonly (readonly [string, string])[]): Record<string, unknown> {
  const record: Record<string, unknown> = {};
  for (const [key, value] of pairs) add(record, key, value);
  return record;
}

function add(record: Record<string, unknown>, key: string, value: string): void {
  const known = Object.hasOwn(record, key) ? record[key] : undefined;
  define(
    record,
    key,
    known === undefined ? value : [...(Array.isArray(known) ? (known as unknown[]) : [known]), value],
  );
}

/** Defined, not assigned: a key may be `__proto__`. */
function define(record: Record<string, unknown>, key: string, value: unknown): void {
  Object.defineProperty(record, key, { value, enumerable: true, writable: true, configurable: true });
}

/** Items, or the fields of a record as `k=v` each (exploded), or as `k,v` in turn. */
function pieces(
  kind: "list" | "record",
  texts: readonly string[],
  { explode, decode }: { readonly explode: boolean; readonly decode: (text: string) => string },
): unknown {
  if (kind === "list") return texts.map(decode);
  const record: Record<string, unknown> = {};
  if (explode) for (const [key, value] of texts.map(pairOf)) define(record, decode(key), decode(value));
  else
    for (let at = 0; at + 1 < texts.length; at += 2)
      define(record, decode(texts[at] ?? ""), decode(texts[at + 1] ?? ""));
  return record;
}

function split(text: string, separator: string): string[] {
  return text === "" ? [] : text.split(separator);
}

function pairOf(text: string): [string, string] {
  const at = text.indexOf("=");
  return at < 0 ? [text, ""] : [text.slice(0, at), text.slice(at + 1)];
}

function same(text: string): string {
  return text;
}

function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

function decodedQuery(text: string): string {
  return decoded(text.replaceAll("+", "%20"));
}

/** Returns name and value of every pair in a query. */
export function queryPairs(query: string): [string, string][] {
  return (query === "" ? [] : query.split("&").map(pairOf)).map(([key, value]) => [
    decodedQuery(key),
    decodedQuery(value),
  ]);
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return text;
  }
}

/** Null, lists and objects. */
const holders = /^(null$|[[{])/;
/** Numbers and booleans too, if a schema has no type. */
const scalars = /^(null$|true$|false$|-?\d|[[{])/;

/** The same value with JSON texts in it parsed. */
function withJson(value: unknown, isJson: RegExp): unknown {
  if (typeof value === "string") return isJson.test(value) ? parsed(value) : value;
  if (Array.isArray(value)) return value.map((each) => withJson(each, isJson));
  if (typeof value !== "object" || value === null) return value;
  const copy: Record<string, unknown> = {};
  for (const [key, each] of Object.entries(value)) define(copy, key, withJson(each, isJson));
  return copy;
}
