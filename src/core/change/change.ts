import type { Place } from "../problem/place.js";
import type { ChangeCode } from "./changeCodes.js";

/** How hard a change hits: breaking, risky, or compatible. */
export type Level = "breaking" | "risky" | "compatible";

/** One verdict on each clock: your source against the new SDK, and released apps against the new server. */
export interface Verdict {
  readonly code: Level;
  readonly apps: Level;
}

/** Which direction a change was judged for; "operation" when it is about neither alone. */
export type ChangeFace = "ask" | "answer" | "operation";

/** One difference between two contracts. */
export interface Change {
  readonly code: ChangeCode;
  readonly face: ChangeFace;
  /** What changed, as people name it: "GET /berths", "Berth.note", "Query.voyages(first:)". */
  readonly subject: string;
  /** One full sentence. */
  readonly message: string;
  readonly verdict: Verdict;
  readonly before?: Place;
  readonly after?: Place;
  /** REST: labels of the old contract's operations that reach it. */
  readonly operations: readonly string[];
  /** GraphQL: how query documents depend on it; a use with one of these coordinates is hit. */
  readonly coordinates: readonly string[];
  /** REST: source is hit only where it names this, for example the field that is gone. */
  readonly word?: string;
  readonly hint?: string;
}

/** Levels in the order of how hard they hit. */
export const weight: Readonly<Record<Level, number>> = { breaking: 2, risky: 1, compatible: 0 };

/** The heavier of the two verdicts. */
export function worst({ code, apps }: Verdict): Level {
  return weight[code] >= weight[apps] ? code : apps;
}

export function byWeight(a: Verdict, b: Verdict): number {
  return weight[worst(b)] - weight[worst(a)];
}

export const verdicts = {
  bothBreak: { code: "breaking", apps: "breaking" },
  codeBreaks: { code: "breaking", apps: "compatible" },
  codeBreaksAppsRisky: { code: "breaking", apps: "risky" },
  appsBreak: { code: "compatible", apps: "breaking" },
  appsRisky: { code: "compatible", apps: "risky" },
  codeRisky: { code: "risky", apps: "compatible" },
  codeRiskyAppsBreak: { code: "risky", apps: "breaking" },
  bothRisky: { code: "risky", apps: "risky" },
  harmless: { code: "compatible", apps: "compatible" },
} as const satisfies Record<string, Verdict>;
