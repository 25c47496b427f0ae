import type { RefusedQuery } from "../../graphql/documents/refusedQueries.js";
import type { Place } from "../../problem/place.js";
import type { Problem } from "../../problem/problem.js";
import type { JudgedChange } from "./judgedChange.js";

/** Returns the operations that the new schema refuses, by the change at the invalid place. */
export function refusedOperations(
  changes: readonly JudgedChange[],
  refused: readonly Problem[],
): Map<JudgedChange, string[]> {
  const found = new Map<JudgedChange, string[]>();
  for (const { places } of refused) {
    for (const change of changes) {
      const hits = change.hits.filter(({ place }) => places.some((each) => meet(each, place)));
      const operations = hits.flatMap((hit) => [hit.owner, ...hit.operations]);
      if (operations.length > 0 && change.verdict.code === "breaking")
        found.set(change, [...(found.get(change) ?? []), ...operations]);
    }
  }
  return found;
}

/** Returns the operations and fragments that are no longer in the SDK, because documents have new errors. */
export function goneQueries(changes: readonly JudgedChange[], refused: readonly RefusedQuery[]): Set<string> {
  const blamed = refusedOperations(
    changes,
    refused.map(({ problem }) => problem),
  );
  return new Set([...refused.map(({ owner }) => owner), ...[...blamed.values()].flat()]);
}

/**
 * Returns whether a change affects a refused query. Whether it compiles is unknown until the query is fixed.
 *
 * @param gone the names of refused operations and fragments
 */
export function hitsAny({ hits }: JudgedChange, gone: ReadonlySet<string>): boolean {
  return hits.some(({ owner, operations }) => [owner, ...operations].some((operation) => gone.has(operation)));
}

function meet(a: Place, b: Place): boolean {
  if (!("offset" in a) || !("offset" in b) || a.document !== b.document) return false;
  return a.offset < b.offset + b.length && b.offset < a.offset + a.length;
}
