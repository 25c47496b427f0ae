import type { ContractPlan } from "../../src/core/sdk/sdkPlan.js";
import { randomGraphql, randomRest } from "./plannedContracts.js";
import { everyFeature } from "./random/features.js";
import { seedsFrom } from "./random/seedsFrom.js";

/** Compiles one SDK of several contracts, the second way in every other batch. Returns every error. */
type Compile = (contracts: readonly ContractPlan[], isTurned: boolean) => Promise<readonly string[]>;

const firstSeed = Number(process.env["RANDOM_SEED"] ?? 1);

/** The number of random contracts and schemas to compile. */
export const contractCount = Number(process.env["RANDOM_CONTRACTS"] ?? 60);
export const schemaCount = Number(process.env["RANDOM_SCHEMAS"] ?? 60);

/** The number that is compiled at once. */
const contractsTogether = 20;
const schemasTogether = 30;

/**
 * Compiles SDKs of random contracts.
 *
 * @param language the name for the report
 * @returns every error, and the features that no contract had
 */
export async function compileContracts(
  language: string,
  compile: Compile,
): Promise<{ readonly complaints: readonly string[]; readonly missing: readonly string[] }> {
  const occurred = new Set<string>();
  let calls = 0;
  const complaints = await compileBatches(contractCount, contractsTogether, (seeds, isTurned) => {
    const made = seeds.map(randomRest);
    for (const { plan, occurred: features } of made) {
      for (const feature of features) occurred.add(feature);
      calls += plan.calls.length;
    }
    return compile(
      made.map(({ plan }) => plan),
      isTurned,
    );
  });
  process.stdout.write(`${String(contractCount)} random contracts with ${String(calls)} calls in ${language}\n`);
  return { complaints, missing: [...everyFeature].filter((feature) => !occurred.has(feature)) };
}

/** Compiles SDKs of queries of random schemas, with closed unions in every other batch. Returns every error. */
export function compileQueries(compile: Compile): Promise<readonly string[]> {
  return compileBatches(schemaCount, schemasTogether, (seeds, isTurned) =>
    compile(
      seeds.map((seed) => randomGraphql(seed, isTurned ? "closed" : "open")),
      isTurned,
    ),
  );
}

async function compileBatches(
  count: number,
  together: number,
  compile: (seeds: readonly number[], isTurned: boolean) => Promise<readonly string[]>,
): Promise<readonly string[]> {
  const complaints: string[] = [];
  for (let done = 0; done < count; done += together) {
    const seeds = seedsFrom(firstSeed + done, Math.min(together, count - done));
    complaints.push(...(await compile(seeds, (done / together) % 2 === 1)));
  }
  return complaints;
}
