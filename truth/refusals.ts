import type { Level } from "../src/core/change/verdict.js";
import type { ExercisingApp } from "./exercise.js";

/**
 * Returns the level of lines with compile errors: ordinary use that does not compile breaks, and an exhaustive match or
 * a built response is at risk.
 */
export function factOf(app: ExercisingApp, refused: ReadonlyMap<number, string[]>): Level {
  let fact: Level = "compatible";
  for (const line of refused.keys()) {
    const kind = app.lines.get(line);
    if (kind !== "match" && kind !== "build") return "breaking";
    fact = "risky";
  }
  return fact;
}

/** Returns lines with compile errors, with the messages. */
export function refusalsTold(app: ExercisingApp, refused: ReadonlyMap<number, string[]>): string[] {
  const lines = app.text.split("\n");
  return [...refused].map(
    ([line, [message = ""]]) =>
      `${app.lines.get(line) ?? "?"}: ${(lines[line - 1] ?? "").trim().slice(0, 160)}  -- ${message.slice(0, 160)}`,
  );
}
