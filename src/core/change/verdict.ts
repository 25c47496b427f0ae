/** The effect of a change: breaking, risky, or compatible. */
export type Level = "breaking" | "risky" | "compatible";

/** The two verdicts: for your code with the new SDK, and for released apps with the new server. */
export interface Verdict {
  readonly code: Level;
  readonly apps: Level;
}

/** The levels with their order. */
export const weight: Readonly<Record<Level, number>> = { breaking: 2, risky: 1, compatible: 0 };

/** All levels, the highest first. */
export const levels: readonly Level[] = ["breaking", "risky", "compatible"];

/** Returns the higher of two levels. */
export function heavier(a: Level, b: Level): Level {
  return weight[a] >= weight[b] ? a : b;
}

/** Returns the higher level of the two verdicts. */
export function worst({ code, apps }: Verdict): Level {
  return heavier(code, apps);
}

/** Compares two verdicts for sorting, the higher one first. */
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
