import { checkContracts } from "../random/checkContracts.js";
import { checkQueries } from "../random/graphql/checkQueries.js";
import type { TestedCore } from "../random/testedCore.js";
import { runtime } from "../../support/readRest.js";
import type { Bug } from "./bugs.js";
import { coreWithBug } from "./coreWithBug.js";

/** The checks of random contracts, or of random schemas and queries. */
export type Check = (core: TestedCore, seeds: readonly number[], lint: boolean) => readonly string[];

export const checkWithContracts: Check = (core, seeds, lint) => checkContracts(seeds, { core, runtime, lint }).failures;
export const checkWithQueries: Check = (core, seeds, lint) => checkQueries(seeds, { core, runtime, lint }).failures;

/** How a bug was found: by which seeds, and with which errors. */
export interface Find {
  readonly seeds: readonly number[];
  /** The number of errors of each finder; empty if there were none. */
  readonly finders: ReadonlyMap<string, number>;
}

/**
 * Plants a bug and searches for it, with the known seeds and then with others.
 *
 * @param mostSeeds the number of other seeds to try
 */
export async function huntBug(bug: Bug, check: Check, mostSeeds: number): Promise<Find> {
  const { testedCore: core } = await coreWithBug<{ testedCore: TestedCore }>(bug, "random/testedCore.ts");
  const known = findersOf(check, core, { seeds: bug.seeds, lint: bug.byLint === true });
  if (known.size > 0) return { seeds: bug.seeds, finders: known };
  for (let seed = 1; seed <= mostSeeds; seed++) {
    const finders = findersOf(check, core, { seeds: [seed], lint: true });
    if (finders.size > 0) return { seeds: [seed], finders };
  }
  return { seeds: [], finders: known };
}

interface Look {
  readonly seeds: readonly number[];
  readonly lint: boolean;
}

function findersOf(check: Check, core: TestedCore, look: Look): Map<string, number> {
  const found = new Map<string, number>();
  if (look.seeds.length === 0) return found;
  for (const failure of failuresOf(check, core, look)) {
    const finder = finderOf(failure);
    found.set(finder, (found.get(finder) ?? 0) + 1);
  }
  return found;
}

/** A server that cannot execute a request is an error too. */
function failuresOf(check: Check, core: TestedCore, { seeds, lint }: Look): readonly string[] {
  try {
    return check(core, seeds, lint);
  } catch (error) {
    return [`the executing server: ${error instanceof Error ? error.message : String(error)}`];
  }
}

function finderOf(failure: string): string {
  if (failure.includes("@typescript-eslint/")) return "lint";
  if (failure.startsWith("the executing server")) return "the server refuses what is sent";
  if (failure.includes("Unused '@ts-expect-error'")) return "a value that is refused by the contract is taken";
  return failure.startsWith("probes") ? "a value that the contract allows is not taken" : "the SDK does not compile";
}
