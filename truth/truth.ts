import type { Change } from "../src/core/change/change.js";
import type { ToldChange, ToldImpact } from "./projectOnDisk.js";
import { heavier, weight, type Level } from "../src/core/change/verdict.js";

export type Clock = "code" | "apps";

/** Under which changes the compile errors of several edits at once were put. */
export interface Blame {
  right: number;
  /** Errors that the edit a change comes from does not cause alone. */
  wrong: string[];
  /** Errors that no edit causes alone. */
  alone: number;
}

/** An app that uses some of the SDK: what the program said of it, and what is so. */
export interface AppCase {
  /** Whether the gate holds it. */
  readonly said: Readonly<Record<Clock, boolean>>;
  /** Whether it breaks; a clock that was not tried is absent. */
  readonly breaks: Readonly<Partial<Record<Clock, boolean>>>;
  readonly changes: readonly ToldChange[];
  readonly evidence: Readonly<Record<Clock, readonly string[]>>;
  /** The app's own files, by path. */
  readonly files: ReadonlyMap<string, string>;
}

/** One or more edits, what was predicted and what was found out. */
export interface Case {
  readonly base: string;
  readonly seed: number;
  readonly kinds: readonly string[];
  readonly isMeaningless: boolean;
  readonly changes: readonly Change[];
  /** What really happens; a clock that was not tried is absent. Of apps only breaks can be seen. */
  readonly facts: Readonly<Partial<Record<Clock, Level>>>;
  readonly blame?: Blame;
  /** The same edits, and an app that uses little; absent where none was made. */
  readonly inUse?: AppCase | undefined;
  /** What the fact was seen by, for people who look into a miss. */
  readonly evidence: Readonly<Partial<Record<Clock, readonly string[]>>>;
}

export interface Score {
  truths: number;
  found: number;
  predicted: number;
  right: number;
}

/**
 * What nobody here sees. Source that lacks a credential compiles, and a server that plays a contract asks for none; nor
 * does it refuse a list that it takes apart in another way. That calls go to another origin is breaking by decision.
 */
const unseen: Readonly<Record<Clock, readonly string[]>> = {
  code: ["auth.now-required", "auth.scheme.changed", "server.elsewhere"],
  apps: ["auth.now-required", "auth.scheme.changed", "ask.style.changed"],
};

/** Whether the gate holds what the program told of an app, but for what nobody here sees. */
export function isHeld({ changes, brokenQueries }: ToldImpact, clock: Clock): boolean {
  return (
    brokenQueries.length > 0 ||
    changes.some(
      ({ code, use, verdict }) => use !== "not used" && verdict[clock] === "breaking" && !unseen[clock].includes(code),
    )
  );
}

/** Counts, for one clock, how many apps break, are said to, and both. */
export function scoreInUse(cases: readonly Case[], clock: Clock): Score {
  const all = cases.flatMap(({ inUse }) => (inUse?.breaks[clock] === undefined ? [] : inUse));
  const [truths, said] = [all.filter(({ breaks }) => breaks[clock]), all.filter((each) => each.said[clock])];
  const both = truths.filter((each) => each.said[clock]).length;
  return { truths: truths.length, found: both, predicted: said.length, right: both };
}

/** The heaviest prediction on a clock. */
export function predicted(changes: readonly Change[], clock: Clock): Level {
  return changes
    .filter(({ code }) => !unseen[clock].includes(code))
    .reduce<Level>((heaviest, { verdict }) => heavier(heaviest, verdict[clock]), "compatible");
}

/** Counts, for one clock and level, how many cases really have it, are said to have it, and both. */
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

/** The cases in which a prediction is not the fact. On the clock of apps what is risky cannot be told from compatible. */
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
