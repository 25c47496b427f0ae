import type { RefusedQuery } from "../../graphql/documents/refusedQueries.js";
import type { JudgedChange } from "../judge/judgedChange.js";

/**
 * Removes hits on a removed field in documents that the new schema accepts: they select it from a type that has it,
 * because the place around it has another type now.
 *
 * @param refused the errors of the documents with the new schema
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
