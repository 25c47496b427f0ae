import type { Level } from "../src/core/change/verdict.js";
import type { ExercisingApp } from "./exercise.js";

/** How hard refused lines hit: ordinary use that does not compile breaks, an exhaustive match or a built answer is a risk. */
export function factOf(app: ExercisingApp, refused: ReadonlyMap<number, string[]>): Level {
  let fact: Level = "compatible";
  for (const line of refused.keys()) {
    const kind = app.lines.get(line);
    if (kind !== "match" && kind !== "build") return "breaking";
    fact = "risky";
  }
  return fact;
}

/** Refused lines with what the compiler says of them. */
export function refusalsTold(app: ExercisingApp, refused: ReadonlyMap<number, string[]>): string[] {
  const lines = app.text.split("\n");
  return [...refused].map(
    ([line, [message = ""]]) =>
      `${app.lines.get(line) ?? "?"}: ${(lines[line - 1] ?? "").trim().slice(0, 160)}  -- ${message.slice(0, 160)}`,
  );
}
