/** How hard a change hits: breaking, risky, or compatible. */
export type Level = "breaking" | "risky" | "compatible";

/** One verdict on each clock: your source against the new SDK, and released apps against the new server. */
export interface Verdict {
  readonly code: Level;
  readonly apps: Level;
}

/** Levels in the order of how hard they hit. */
export const weight: Readonly<Record<Level, number>> = { breaking: 2, risky: 1, compatible: 0 };

/** All levels, the one that hits hardest first. */
export const levels: readonly Level[] = ["breaking", "risky", "compatible"];

/** The heavier of two levels. */
export function heavier(a: Level, b: Level): Level {
  return weight[a] >= weight[b] ? a : b;
}

/** The heavier of the two clocks. */
export function worst({ code, apps }: Verdict): Level {
  return heavier(code, apps);
}

/** Compares two verdicts for sorting, the heavier one first. */
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
