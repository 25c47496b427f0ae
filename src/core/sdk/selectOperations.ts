import { operationLabel, type RestOperation } from "../contract/model.js";

export interface Selection {
  readonly only?: readonly string[];
  readonly skip?: readonly string[];
}

/**
 * Keeps the operations that `only` lists (all if it is absent) and `skip` does not.
 *
 * A pattern is an operationId, a tag, or a method and a path glob such as "DELETE /berths/**". `*` matches one path
 * segment or a method.
 *
 * @returns the operations, and the patterns without a match, which are probably misspelt
 */
export function selectOperations(
  operations: readonly RestOperation[],
  { only, skip }: Selection,
): { kept: RestOperation[]; unmatched: string[] } {
  const patterns = [...(only ?? []), ...(skip ?? [])];
  const unmatched = patterns.filter((pattern) => !operations.some((operation) => matches(operation, pattern)));
  const kept = operations.filter(
    (operation) =>
      (!only || only.some((pattern) => matches(operation, pattern))) &&
      !(skip ?? []).some((pattern) => matches(operation, pattern)),
  );
  return { kept, unmatched };
}

function matches(operation: RestOperation, pattern: string): boolean {
  if (pattern === operation.operationId || operation.tags.includes(pattern)) return true;
  if (!/^(\*|[A-Za-z]+)\s+\//.test(pattern)) return false;
  const [method = "", glob = ""] = pattern.split(/\s+/);
  if (method !== "*" && method.toLowerCase() !== operation.method) return false;
  const source = glob
    .split(/(\/\*\*|\*\*|\*)/)
    .map((part) =>
      part === "/**"
        ? "(/.*)?"
        : part === "**"
          ? ".*"
          : part === "*"
            ? "[^/]*"
            : part.replace(/[.+?^${}()|[\]\\]/g, "\\$&"),
    )
    .join("");
  return new RegExp(`^${source}$`).test(operationLabel(operation).replace(/^\S+ /, ""));
}
