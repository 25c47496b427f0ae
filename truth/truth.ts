import type { Change } from "../src/core/change/change.js";
import type { ToldChange, ToldImpact } from "./projectOnDisk.js";
import { heavier, weight, type Level } from "../src/core/change/verdict.js";

export type Clock = "code" | "apps";

/** The changes under which the compile errors of several edits at once were listed. */
export interface Blame {
  right: number;
  /** Errors that the listed change's edit does not cause alone. */
  wrong: string[];
  /** The number of errors that no edit causes alone. */
  alone: number;
}

/** An app that uses a part of the SDK: the prediction, and the facts. */
export interface AppCase {
  /** Whether it fails the gate. */
  readonly said: Readonly<Record<Clock, boolean>>;
  /** Whether it breaks. A verdict that was not checked is absent. */
  readonly breaks: Readonly<Partial<Record<Clock, boolean>>>;
  readonly changes: readonly ToldChange[];
  readonly evidence: Readonly<Record<Clock, readonly string[]>>;
  /** The app's own files, by path. */
  readonly files: ReadonlyMap<string, string>;
}

/** One or more edits, with the prediction and the facts. */
export interface Case {
  readonly base: string;
  readonly seed: number;
  readonly kinds: readonly string[];
  readonly isMeaningless: boolean;
  readonly changes: readonly Change[];
  /** The facts. A verdict that was not checked is absent. For apps, only breaks can be observed. */
  readonly facts: Readonly<Partial<Record<Clock, Level>>>;
  readonly blame?: Blame;
  /** The same edits with an app that uses little; absent if none was made. */
  readonly inUse?: AppCase | undefined;
  /** The evidence of the facts, for people who look into a miss. */
  readonly evidence: Readonly<Partial<Record<Clock, readonly string[]>>>;
}

export interface Score {
  truths: number;
  found: number;
  predicted: number;
  right: number;
}

/**
 * Effects that cannot be observed here. Source without a credential compiles, and the stand-in server requires none.
 * The server also does not refuse a list in another style. That calls go to another origin is breaking by decision.
 */
const unseen: Readonly<Record<Clock, readonly string[]>> = {
  code: ["auth.now-required", "auth.scheme.changed", "server.elsewhere"],
  apps: ["auth.now-required", "auth.scheme.changed", "ask.style.changed"],
};

/** Returns whether a prediction for an app fails the gate, without effects that cannot be observed here. */
export function isHeld({ changes, brokenQueries }: ToldImpact, clock: Clock): boolean {
  return (
    brokenQueries.length > 0 ||
    changes.some(
      ({ code, use, verdict }) => use !== "not used" && verdict[clock] === "breaking" && !unseen[clock].includes(code),
    )
  );
}

/** Counts, for one verdict, how many apps break, are predicted to break, and both. */
export function scoreInUse(cases: readonly Case[], clock: Clock): Score {
  const all = cases.flatMap(({ inUse }) => (inUse?.breaks[clock] === undefined ? [] : inUse));
  const [truths, said] = [all.filter(({ breaks }) => breaks[clock]), all.filter((each) => each.said[clock])];
  const both = truths.filter((each) => each.said[clock]).length;
  return { truths: truths.length, found: both, predicted: said.length, right: both };
}

/** Returns the highest predicted level of a verdict. */
export function predicted(changes: readonly Change[], clock: Clock): Level {
  return changes
    .filter(({ code }) => !unseen[clock].includes(code))
    .reduce<Level>((heaviest, { verdict }) => heavier(heaviest, verdict[clock]), "compatible");
}

/** Counts, for one verdict and level, how many cases have it, are predicted to have it, and both. */
export function score(cases: readonly Case[], clock: Clock, level: Level): Score {
  const total: Score = { truths: 0, found: 0, predicted: 0, right: 0 };
  for (const each of cases) {
    const fact = each.facts[clock];
    if (fact === undefined) continue;
    const said = predicted(each.changes, clock);
    if (fact === level) total.truths++;
    if (fact === level && said === level) total.found++;
    if (said === level) total.predicted++;
    if (said === level && fact === level) total.right++;
  }
  return total;
}

/**
 * Returns the cases in which a prediction differs from the fact. For released apps, risky and compatible cannot be
 * distinguished.
 */
export function misses(cases: readonly Case[], clock: Clock): Case[] {
  return cases.filter((each) => {
    const fact = each.facts[clock];
    if (fact === undefined) return false;
    const said = predicted(each.changes, clock);
    return clock === "apps" ? (fact === "breaking") !== (said === "breaking") : weight[fact] !== weight[said];
  });
}

export function percent(part: number, whole: number): string {
  return whole === 0 ? "-" : `${((100 * part) / whole).toFixed(1)} %`;
}
