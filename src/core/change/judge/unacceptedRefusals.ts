import type { RefusedQuery } from "../../graphql/documents/refusedQueries.js";
import type { Problem } from "../../problem/problem.js";
import type { JudgedChange } from "./judgedChange.js";
import { worst } from "../verdict.js";

/** Returns the refused queries that no accepted change causes. A query that another change breaks too is included. */
export function unacceptedRefusals(refused: readonly RefusedQuery[], changes: readonly JudgedChange[]): Problem[] {
  const breaking = changes.filter(({ verdict }) => worst(verdict) === "breaking");
  return refused
    .filter(({ owner }) => {
      const causes = breaking.filter(({ hits }) =>
        hits.some((hit) => hit.owner === owner || hit.operations.includes(owner)),
      );
      return causes.length === 0 || !causes.every(({ accepted }) => accepted !== undefined);
    })
    .map(({ problem }) => problem);
}
