import type { RestOperation } from "../../core/contract/model.js";

export interface MatchedOperation {
  readonly operation: RestOperation;
  readonly pathValues: ReadonlyMap<string, string>;
  /** The same values, still percent-encoded. */
  readonly rawValues: ReadonlyMap<string, string>;
}

export type Matching =
  | { readonly kind: "match"; readonly match: MatchedOperation }
  | { readonly kind: "method"; readonly allowed: readonly string[] }
  | { readonly kind: "none" };

interface Route {
  readonly operation: RestOperation;
  readonly segments: readonly Segment[];
  /** Routes with more fixed text come first: "/berths/free" before "/berths/{berthId}". */
  readonly fixed: number;
}

/** A part of a path between two slashes: texts, with a parameter after each but the last. */
interface Segment {
  readonly texts: readonly string[];
  readonly names: readonly string[];
}

/** Returns a function that finds the operation of a request. */
export function operationMatcher(operations: readonly RestOperation[]): (method: string, path: string) => Matching {
  const routes = operations.map(toRoute).sort((a, b) => b.fixed - a.fixed);
  return (method, path) => {
    const allowed: string[] = [];
    for (const route of routes) {
      const rawValues = valuesIn(path, route);
      if (!rawValues) continue;
      if (route.operation.method === method.toLowerCase()) {
        const pathValues = new Map([...rawValues].map(([name, text]) => [name, decoded(text)]));
        return { kind: "match", match: { operation: route.operation, pathValues, rawValues } };
      }
      allowed.push(route.operation.method.toUpperCase());
    }
    return allowed.length > 0 ? { kind: "method", allowed: [...new Set(allowed)] } : { kind: "none" };
  };
}

function toRoute(operation: RestOperation): Route {
  const segments = operation.path.split("/").map((segment): Segment => {
    const parts = segment.split(/\{([^{}]+)\}/);
    return { texts: parts.filter((_, at) => at % 2 === 0), names: parts.filter((_, at) => at % 2 === 1) };
  });
  const fixed = operation.path.replace(/\{[^{}]+\}/g, "").length;
  return { operation, segments, fixed };
}

/**
 * The values of a route's parameters in a path, which may have an additional slash at its end; undefined if the path
 * does not match.
 */
function valuesIn(path: string, { segments }: Route): Map<string, string> | undefined {
  const parts = path.split("/");
  if (parts.length === segments.length + 1 && parts.at(-1) === "") parts.pop();
  if (parts.length !== segments.length) return undefined;
  const values = new Map<string, string>();
  for (const [at, { texts, names }] of segments.entries()) {
    const found = valuesBetween(parts[at] ?? "", texts);
    if (!found) return undefined;
    names.forEach((name, index) => values.set(name, found[index] ?? ""));
  }
  return values;
}

/**
 * The texts between fixed texts, as short as possible and never empty. A regular expression would be slow for
 * unexpected paths.
 */
function valuesBetween(part: string, texts: readonly string[]): string[] | undefined {
  const [first = "", ...others] = texts;
  if (others.length === 0) return part === first || decoded(part) === first ? [] : undefined;
  if (!part.startsWith(first)) return undefined;
  const last = others.pop() ?? "";
  const values: string[] = [];
  let from = first.length;
  for (const text of others) {
    const at = part.indexOf(text, from + 1);
    if (at < 0) return undefined;
    values.push(part.slice(from, at));
    from = at + text.length;
  }
  const end = part.length - last.length;
  if (end <= from || !part.endsWith(last)) return undefined;
  return [...values, part.slice(from, end)];
}

function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

/** Returns a path without the names of its parameters, for recognising paths with the same meaning. */
export function pathPattern(path: string): string {
  return path.replace(/\{[^{}]+\}/g, "{}");
}
