import { LimitedExpression } from "./limitedExpression.js";
import type { RestOperation } from "../core/contract/model.js";

export interface MatchedOperation {
  readonly operation: RestOperation;
  readonly pathValues: ReadonlyMap<string, string>;
  /** The same, still percent-encoded. */
  readonly rawValues: ReadonlyMap<string, string>;
}

export type Matching =
  | { readonly kind: "match"; readonly match: MatchedOperation }
  | { readonly kind: "method"; readonly allowed: readonly string[] }
  | { readonly kind: "none" };

interface Route {
  readonly operation: RestOperation;
  readonly expression: LimitedExpression;
  readonly names: readonly string[];
  /** More fixed text wins: "/berths/free" before "/berths/{berthId}". */
  readonly fixed: number;
}

/** Makes a function that finds the operation a request is for. */
export function operationMatcher(operations: readonly RestOperation[]): (method: string, path: string) => Matching {
  const routes = operations.map(toRoute).sort((a, b) => b.fixed - a.fixed);
  return (method, path) => {
    const allowed: string[] = [];
    for (const route of routes) {
      const found = route.expression.exec(path);
      if (!found || found === "slow") continue;
      if (route.operation.method === method.toLowerCase()) {
        const rawValues = new Map(route.names.map((name, at) => [name, found[at + 1] ?? ""]));
        const pathValues = new Map([...rawValues].map(([name, text]) => [name, decoded(text)]));
        return { kind: "match", match: { operation: route.operation, pathValues, rawValues } };
      }
      allowed.push(route.operation.method.toUpperCase());
    }
    return allowed.length > 0 ? { kind: "method", allowed: [...new Set(allowed)] } : { kind: "none" };
  };
}

function toRoute(operation: RestOperation): Route {
  const names: string[] = [];
  const source = operation.path.split(/(\{[^{}]+\})/).map((part) => {
    const name = /^\{([^{}]+)\}$/.exec(part)?.[1];
    if (name === undefined) return part.replace(/[.*+?^${}()|[\]\\]/g, "\\$&");
    names.push(name);
    return "([^/]+?)";
  });
  const fixed = operation.path.replace(/\{[^{}]+\}/g, "").length;
  return { operation, names, fixed, expression: new LimitedExpression(`^${source.join("")}/?$`) };
}

function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

/** A path without the names of its parameters, by which paths of one meaning are known. */
export function pathPattern(path: string): string {
  return path.replace(/\{[^{}]+\}/g, "{}");
}
