import type { Coordinate } from "../../use/coordinate.js";
import type { JudgedChange } from "./judgedChange.js";
import type { CompileError } from "../../use/compileError.js";
import type { SourceUse } from "../../use/sourceUse.js";

/** The known facts about an app before its contracts changed, for explaining why it no longer compiles. */
export interface Explaining {
  readonly changes: readonly JudgedChange[];
  /** The app's uses of the SDK. */
  readonly uses: readonly SourceUse[];
  /** GraphQL operations that the new schema refuses, by the change that caused it. */
  readonly refused: ReadonlyMap<JudgedChange, readonly string[]>;
  /** Returns the names that source can use of a GraphQL operation. */
  readonly namesOf: (operation: string) => readonly string[];
}

/**
 * Returns the change that causes a compile error. It is the change of the use that is closest to the error, or of the
 * variables in the statement. If no use is close, it is the change that the compiler's message or the statement names,
 * or one of a query whose response is used there.
 *
 * @returns undefined if no change explains the error
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
  // A property that the message names is the error, wherever it is in the statement.
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

/** Whether one of the uses depends on a change, or belongs to an operation that the change removes. */
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

/** The source name of the changed part: the last part of its coordinates. */
function changedNames({ coordinates, word, subject }: JudgedChange): string[] {
  const lastOf = (text: string): string => /([\p{ID_Continue}$]+)[^\p{ID_Continue}$]*$/u.exec(text)?.[1] ?? "";
  // A path is not a name in source.
  const isOperation = /^[A-Z]+ \S+$/.test(subject);
  const names = [
    ...coordinates.map(lastOf),
    ...(word === undefined ? [] : [word]),
    ...(isOperation ? [] : [lastOf(subject)]),
  ];
  return names.filter((name) => name.length > 1);
}
