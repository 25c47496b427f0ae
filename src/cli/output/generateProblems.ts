import type { Paint } from "../../core/report/paint.js";
import type { Problem } from "../../core/problem/problem.js";
import { renderProblem } from "../../core/report/renderProblem.js";
import type { GenerateOutcome } from "../../workspace/generate/generateOutcome.js";

/**
 * Returns the lines of all problems, each once.
 *
 * @param isWanted returns whether a problem is shown
 */
export function problemLines(
  outcome: GenerateOutcome,
  paint: Paint,
  isWanted: (problem: Problem) => boolean = () => true,
): string[] {
  const seen = new Set<string>();
  const all = [...outcome.problems, ...outcome.sdks.flatMap((sdk) => sdk.problems)].filter((problem) => {
    const key = JSON.stringify([problem.code, problem.message, problem.places]);
    if (seen.has(key)) return false;
    seen.add(key);
    return isWanted(problem);
  });
  const lines = all.flatMap((problem) => [...renderProblem(problem, outcome.texts, paint), ""]);
  return outcome.completedEarlier ? ["An earlier run was interrupted. It is complete now.", "", ...lines] : lines;
}
