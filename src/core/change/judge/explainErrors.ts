import type { Coordinate } from "../../use/coordinate.js";
import type { JudgedChange } from "./judgedChange.js";
import type { CompileError } from "../../use/compileError.js";
import type { SourceUse } from "../../use/sourceUse.js";

/** What is known about an app before its contracts changed, to explain by it why it no longer compiles. */
export interface Explaining {
  readonly changes: readonly JudgedChange[];
  /** What the app used of the SDK. */
  readonly uses: readonly SourceUse[];
  /** GraphQL operations that the new schema refuses, by the change that is to blame. */
  readonly refused: ReadonlyMap<JudgedChange, readonly string[]>;
  /** What source may name of a GraphQL operation. */
  readonly namesOf: (operation: string) => readonly string[];
}

/**
 * Says which change causes a compile error: the one that what is used nearest to the error depends on, or what the
 * statement's variables were made of; where nothing of the SDK is used near it, the one that the compiler's message or
 * the statement names, or one that a query has whose answer is used there.
 *
 * @returns undefined when no change explains the error
 */
export function explainError(error: CompileError, known: Explaining): JudgedChange | undefined {
  const candidates = known.changes.filter(({ verdict }) => verdict.code !== "compatible");
  const near = known.uses.filter(({ place }) => place.document === error.place.document);
  const namesOf = (change: JudgedChange): string[] => [
    ...changedNames(change),
    ...(known.refused.get(change) ?? []).flatMap(known.namesOf),
  ];
  const isMentioned = (text: string) => {
    const words = new Set(text.match(/[\p{ID_Start}$_][\p{ID_Continue}$]*/gu));
    const all = [...words];
    return (change: JudgedChange): boolean =>
      namesOf(change).some((name) => words.has(name)) ||
      (known.refused.get(change) ?? []).some((operation) => all.some((word) => belongsTo(word, operation)));
  };
  const inMessage = isMentioned(error.message);
  const rank = (change: JudgedChange): number =>
    (inMessage(change) ? 4 : 0) + (change.use === "used" ? 2 : 0) + (change.verdict.code === "breaking" ? 1 : 0);
  const heaviest = (found: readonly JudgedChange[]): JudgedChange | undefined =>
    [...found].sort((a, b) => rank(b) - rank(a))[0];
  const usedIn = ([start, end]: readonly [number, number]): Coordinate[] =>
    near.filter(({ place }) => place.offset >= start && place.offset < end).map((use) => use.coordinate);
  const depending = (used: readonly Coordinate[]): JudgedChange[] =>
    candidates.filter((change) =>
      dependsOn(
        change,
        used,
        (known.refused.get(change) ?? []).map((name) => ({ name, names: known.namesOf(name) })),
      ),
    );
  // A property that the message says by name is what is wrong, wherever in the statement it stands.
  const said = new Set(error.members);
  const statement = error.ranges.at(-1);
  const saidChange =
    statement &&
    heaviest(depending(usedIn(statement)).filter((change) => changedNames(change).some((name) => said.has(name))));
  if (saidChange) return saidChange;
  for (const range of error.ranges) {
    const best = heaviest(depending(usedIn(range)));
    if (best) return best;
  }
  for (const range of error.origins) {
    const best = heaviest(depending(usedIn(range)));
    if (best) return best;
  }
  const isOf = (operation: string, used: readonly Coordinate[]): boolean =>
    used.some((each) => known.namesOf(operation).includes(each) || belongsTo(each, operation));
  const throughQueries = (used: readonly Coordinate[]): JudgedChange[] =>
    candidates.filter(({ hits }) => hits.some(({ operations }) => operations.some((each) => isOf(each, used))));
  const around = [...error.ranges, ...error.origins].map((range) => throughQueries(usedIn(range)));
  return (
    heaviest(candidates.filter(inMessage)) ??
    heaviest(candidates.filter(isMentioned(error.statement))) ??
    heaviest(around.find((found) => found.length > 0) ?? []) ??
    heaviest(depending(usedIn(error.scope))) ??
    heaviest(throughQueries(usedIn(error.scope)))
  );
}

/** Whether one of the things that are used depends on a change, or belongs to an operation that it takes away. */
function dependsOn(
  change: JudgedChange,
  used: readonly Coordinate[],
  operations: readonly { readonly name: string; readonly names: readonly string[] }[],
): boolean {
  return used.some(
    (coordinate) =>
      change.coordinates.includes(coordinate) ||
      operations.some(({ name, names }) => names.includes(coordinate) || belongsTo(coordinate, name)),
  );
}

function belongsTo(coordinate: string, operation: string): boolean {
  return ["Answer", "Variables", "Failure"].some((suffix) => coordinate.startsWith(operation + suffix));
}

/** What source calls the thing that changed: the last part of what it is known by. */
function changedNames({ coordinates, word, subject }: JudgedChange): string[] {
  const lastOf = (text: string): string => /([\p{ID_Continue}$]+)[^\p{ID_Continue}$]*$/u.exec(text)?.[1] ?? "";
  // A path names nothing that source could.
  const isOperation = /^[A-Z]+ \S+$/.test(subject);
  const names = [
    ...coordinates.map(lastOf),
    ...(word === undefined ? [] : [word]),
    ...(isOperation ? [] : [lastOf(subject)]),
  ];
  return names.filter((name) => name.length > 1);
}
