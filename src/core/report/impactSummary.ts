import { changeMeanings, type ChangeCode } from "../change/changeCodes.js";
import { breaksProject, type ContractImpact, type JudgedChange } from "../change/judgedChange.js";
import { byWeight, heavier, worst, type Level, type Verdict } from "../change/verdict.js";
import { groupedBy } from "../text/groupedBy.js";
import { joinedChanges, type JoinedChange } from "./joinedChanges.js";

export type Counts = Readonly<Record<Level, number>>;

/** What a team wants to know first of many changes. */
export interface ImpactSummary {
  /** How many changes there are for each clock and level, and how many of them are to what is in use or may be. */
  readonly clocks: Readonly<Record<"code" | "apps", { readonly used: Counts; readonly all: Counts }>>;
  /** Whether it is known what is in use. */
  readonly knowsUse: boolean;
  /** Kinds of change, those in use and the heaviest first. */
  readonly kinds: readonly KindOfChange[];
  /** What can break the project, as entries. */
  readonly breaking: readonly JoinedChange[];
}

export interface KindOfChange {
  readonly code: ChangeCode;
  readonly title: string;
  readonly verdict: Verdict;
  readonly count: number;
  readonly used: number;
}

/** Counts changes by clock and by kind. */
export function impactSummary(impacts: readonly ContractImpact[]): ImpactSummary {
  const changes = impacts.flatMap((impact) => impact.changes);
  const used = changes.filter(({ use }) => use !== "not used");
  const clocks = (clock: keyof Verdict) => ({ used: counts(used, clock), all: counts(changes, clock) });
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
    clocks: { code: clocks("code"), apps: clocks("apps") },
    knowsUse: changes.some(({ use }) => use !== "cannot tell"),
    kinds: kinds.sort(
      (a, b) =>
        Number(b.used > 0) - Number(a.used > 0) ||
        byWeight(a.verdict, b.verdict) ||
        b.used - a.used ||
        b.count - a.count,
    ),
    // What many have in common says more than what one has.
    breaking: impacts
      .flatMap((impact) => joinedChanges(impact.changes.filter(breaksProject)))
      .sort((a, b) => Number(b.use === "used") - Number(a.use === "used") || b.parts.length - a.parts.length),
  };
}

function counts(changes: readonly JudgedChange[], clock: keyof Verdict): Counts {
  const found = { breaking: 0, risky: 0, compatible: 0 };
  for (const { verdict } of changes) found[verdict[clock]] += 1;
  return found;
}

/** Whether there is so much to say that it needs a summary. */
export function needsSummary(impacts: readonly ContractImpact[]): boolean {
  const entries = impacts.flatMap(({ changes }) => joinedChanges(changes));
  return entries.length > fewEntries;
}

const fewEntries = 8;

/** Whether a change belongs to what a report shows in full unless it is asked for all. */
export function isNotable(change: JudgedChange): boolean {
  return change.use !== "not used" && worst(change.verdict) !== "compatible";
}
