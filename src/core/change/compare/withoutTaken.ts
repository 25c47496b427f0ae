import type { RefusedQuery } from "../../graphql/documents/refusedQueries.js";
import type { JudgedChange } from "../judge/judgedChange.js";

/**
 * Leaves out what a field that is gone does not hit: a document that the new schema takes selects it of a type that has
 * it, because the place around it is of another type now.
 *
 * @param refused what the new schema refuses of the documents that the changes were held against
 */
export function withoutTaken(changes: readonly JudgedChange[], refused: readonly RefusedQuery[]): JudgedChange[] {
  const owners = new Set(refused.map(({ owner }) => owner));
  return changes.map((change) => {
    if (!["answer.field.gone", "answer.field.renamed"].includes(change.code) || change.use !== "used") return change;
    const hits = change.hits.filter(({ owner, isInSource }) => isInSource === true || owners.has(owner));
    return hits.length === change.hits.length
      ? change
      : { ...change, hits, use: hits.length > 0 ? "used" : "not used" };
  });
}
