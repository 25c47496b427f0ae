import { changeMeanings, type ChangeCode } from "../change/changeCodes.js";
import { breaksProject, type ContractImpact, type JudgedChange } from "../change/judge/judgedChange.js";
import { byWeight, heavier, worst, type Level, type Verdict } from "../change/verdict.js";
import { groupedBy } from "../text/groupedBy.js";
import { joinedChanges, type JoinedChange } from "./joinedChanges.js";

export type Counts = Readonly<Record<Level, number>>;

/** The overview of many changes for a team. */
export interface ImpactSummary {
  /** The number of changes for each verdict and level, and how many of them are in use or may be. */
  readonly clocks: Readonly<Record<"code" | "apps", { readonly used: Counts; readonly all: Counts }>>;
  /** Whether the uses are known. */
  readonly knowsUse: boolean;
  /** The kinds of changes, those in use and with the highest level first. */
  readonly kinds: readonly KindOfChange[];
  /** The entries that can break the project. */
  readonly breaking: readonly JoinedChange[];
}

export interface KindOfChange {
  readonly code: ChangeCode;
  readonly title: string;
  readonly verdict: Verdict;
  readonly count: number;
  readonly used: number;
}

/** Counts changes by verdict and by kind. */
export function impactSummary(impacts: readonly ContractImpact[]): ImpactSummary {
  const changes = impacts.flatMap((impact) => impact.changes);
  // For a released app, no code is rated.
  const ofCode = impacts.flatMap((impact) => (impact.isReleased === true ? [] : impact.changes));
  const clocks = (all: readonly JudgedChange[], clock: keyof Verdict) => ({
    used: counts(
      all.filter(({ use }) => use !== "not used"),
      clock,
    ),
    all: counts(all, clock),
  });
  const breaking = impacts.flatMap((impact) =>
    impact.changes.filter(breaksProject).map((change) => ({ change, isReleased: impact.isReleased === true })),
  );
  // A change that breaks the project now is not repeated for its releases.
  const told = new Set(breaking.flatMap(({ change, isReleased }) => (isReleased ? [] : [keyOf(change)])));
  const news = breaking.filter(({ change, isReleased }) => !isReleased || !told.has(keyOf(change)));
  const kinds = [...groupedBy(changes, ({ code }) => code)].map(([code, own]): KindOfChange => ({
    code,
    title: changeMeanings[code].title,
    verdict: own
      .map(({ verdict }) => verdict)
      .reduce((one, other) => ({ code: heavier(one.code, other.code), apps: heavier(one.apps, other.apps) })),
    count: own.length,
    used: own.filter(({ use }) => use !== "not used").length,
  }));
  return {
    clocks: { code: clocks(ofCode, "code"), apps: clocks(changes, "apps") },
    knowsUse: knowsUse(changes),
    kinds: kinds.sort(
      (a, b) =>
        Number(b.used > 0) - Number(a.used > 0) ||
        byWeight(a.verdict, b.verdict) ||
        b.used - a.used ||
        b.count - a.count,
    ),
    // A change that many have in common is more important than a single one.
    breaking: joinedChanges(news.map(({ change }) => change)).sort(
      (a, b) => Number(b.use === "used") - Number(a.use === "used") || b.parts.length - a.parts.length,
    ),
  };
}

/** The text of a change, whoever it is for. */
function keyOf({ code, subject, message }: JudgedChange): string {
  return JSON.stringify([code, subject, message]);
}

function counts(changes: readonly JudgedChange[], clock: keyof Verdict): Counts {
  const found = { breaking: 0, risky: 0, compatible: 0 };
  for (const { verdict } of changes) found[verdict[clock]] += 1;
  return found;
}

/** Returns whether the use of any change is known. */
export function knowsUse(changes: readonly JudgedChange[]): boolean {
  return changes.some(({ use }) => use !== "cannot tell");
}

/** Returns whether there is so much to show that a summary is needed. */
export function needsSummary(impacts: readonly ContractImpact[]): boolean {
  const entries = impacts.flatMap(({ changes }) => joinedChanges(changes));
  return entries.length > fewEntries;
}

const fewEntries = 8;

/** Returns whether a report shows a change in full without `--all`. */
export function isNotable(change: JudgedChange): boolean {
  return change.use !== "not used" && worst(change.verdict) !== "compatible";
}
