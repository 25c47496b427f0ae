import { expect, it } from "vitest";
import { canCompileKotlin } from "../../support/kotlin/kotlinCompiler.js";
import { everyFeature } from "../random/features.js";
import { seedsFrom } from "../random/seedsFrom.js";
import { uglyCases } from "../ugly/uglyContracts.js";
import { hostileContract, positions } from "../hostileContract.js";
import { hostileNames } from "./hostileNames.js";
import { largeContract } from "./largeContract.js";
import { compiledInKotlin, isThorough, turned } from "./compiledInKotlin.js";
import { plannedRest, randomRest } from "../plannedContracts.js";

it.each([...(isThorough ? [["as they are", {}] as const] : []), ["with every setting turned", turned] as const])(
  `all ${String(uglyCases.length)} ugly contracts compile in Kotlin, %s`,
  async (how, settings) => {
    if (!canCompileKotlin(`ugly contracts in Kotlin, ${how}`)) return;
    const contracts = uglyCases.map(({ document, pages }, at) => plannedRest(`case${String(at)}`, document, pages));
    expect((await compiledInKotlin(contracts, settings)).complaints).toEqual([]);
  },
);

it.each([["as they are", {}] as const, ...(isThorough ? [["with every setting turned", turned] as const] : [])])(
  `${String(hostileNames.length)} hostile names in ${String(positions.length)} positions compile in Kotlin, %s`,
  async (how, settings) => {
    if (!canCompileKotlin(`hostile names in Kotlin, ${how}`)) return;
    expect(hostileNames.length * positions.length).toBeGreaterThan(400);
    const { complaints } = await compiledInKotlin([plannedRest("names", hostileContract(hostileNames))], settings);
    expect(complaints).toEqual([]);
  },
);

it.each([...(isThorough ? [["as it is", {}] as const] : []), ["with every setting turned", turned] as const])(
  "a contract with more than the JVM has room for compiles in Kotlin, %s",
  async (how, settings) => {
    if (!canCompileKotlin(`a large contract in Kotlin, ${how}`)) return;
    expect((await compiledInKotlin([plannedRest("large", largeContract())], settings)).complaints).toEqual([]);
  },
);

const count = Number(process.env["RANDOM_CONTRACTS"] ?? 60);
const firstSeed = Number(process.env["RANDOM_SEED"] ?? 1);
/** As many contracts as are compiled at once. */
const together = 20;

it(`${String(count)} random contracts compile in Kotlin without a warning, and every class loads`, async () => {
  if (!canCompileKotlin("random contracts in Kotlin")) return;
  const occurred = new Set<string>();
  const complaints: string[] = [];
  let calls = 0;
  for (let seed = firstSeed; seed < firstSeed + count; seed += together) {
    const contracts = seedsFrom(seed, Math.min(together, firstSeed + count - seed)).map((each) => {
      const made = randomRest(each);
      for (const feature of made.occurred) occurred.add(feature);
      return made.plan;
    });
    calls += contracts.reduce((sum, plan) => sum + plan.calls.length, 0);
    const isTurned = ((seed - firstSeed) / together) % 2 === 1;
    complaints.push(...(await compiledInKotlin(contracts, isTurned ? turned : {})).complaints);
  }
  process.stdout.write(`${String(count)} random contracts with ${String(calls)} calls in Kotlin\n`);
  expect(complaints).toEqual([]);
  expect([...everyFeature].filter((feature) => !occurred.has(feature))).toEqual([]);
});
