import { problem } from "../../core/problem/problem.js";
import { didYouMean } from "../../core/text/nearest.js";
import { exitCodes, Halt } from "../project/halt.js";
import type { Project } from "../project/project.js";

/**
 * Returns the contracts for a command: the named ones, or all that an SDK covers.
 *
 * @throws Halt for an unknown name
 */
export function chosenContracts(project: Project, wanted: readonly string[]): string[] {
  const covered = new Set(Object.values(project.configuration.sdks).flatMap(({ covers }) => covers));
  const known = Object.keys(project.configuration.contracts).sort();
  for (const name of wanted) {
    if (known.includes(name)) continue;
    const hint = didYouMean(name, known) ?? `Configured: ${known.join(", ")}.`;
    throw new Halt([problem("sdk.unknown", `There is no contract named \`${name}\`.`, { hint })], exitCodes.usage);
  }
  return wanted.length > 0 ? [...new Set(wanted)] : known.filter((name) => covered.has(name));
}
