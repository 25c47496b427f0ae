import { Kind } from "graphql";
import type { SourceText } from "../../problem/place.js";
import type { Problem } from "../../problem/problem.js";
import { parseText } from "../parseText.js";

/** An error that a query document has with a new schema, but not with the old one. */
export interface RefusedQuery {
  readonly problem: Problem;
  /** The operation or fragment with the error. */
  readonly owner: string;
}

/**
 * Returns the new errors of documents, for which a server with the new schema refuses them (GraphQL, section 5).
 *
 * @param before the problems that the documents have with the old schema
 * @param after the problems that they have with the new one
 */
export function refusedQueries(
  before: readonly Problem[],
  after: readonly Problem[],
  documents: readonly SourceText[],
): RefusedQuery[] {
  const key = (problem: Problem): string => JSON.stringify([problem.message, problem.places]);
  const known = new Set(before.map(key));
  const fresh = after.filter((problem) => problem.level === "error" && !known.has(key(problem)));
  if (fresh.length === 0) return [];
  const owners = definitionsOf(documents);
  return fresh.map((problem) => {
    const [place] = problem.places;
    const found = owners.find(
      ({ document, start, end }) =>
        place?.document === document && "offset" in place && start <= place.offset && place.offset < end,
    );
    return { problem, owner: found?.name ?? "" };
  });
}

interface Definition {
  readonly name: string;
  readonly document: string;
  readonly start: number;
  readonly end: number;
}

function definitionsOf(documents: readonly SourceText[]): Definition[] {
  return documents.flatMap((source) => {
    const parsed = parseText(source);
    if (!parsed.ok) return [];
    return parsed.document.definitions.flatMap((definition): Definition[] =>
      (definition.kind === Kind.OPERATION_DEFINITION || definition.kind === Kind.FRAGMENT_DEFINITION) &&
      definition.name &&
      definition.loc
        ? [
            {
              name: definition.name.value,
              document: source.document,
              start: definition.loc.start,
              end: definition.loc.end,
            },
          ]
        : [],
    );
  });
}
