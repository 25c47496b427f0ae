import { expect, it } from "vitest";
import { canCompileSwift } from "../../support/swift/swiftCompiler.js";
import { hostileContract, positions } from "../hostileContract.js";
import { plannedRest, randomRest } from "../plannedContracts.js";
import { everyFeature } from "../random/features.js";
import { seedsFrom } from "../random/seedsFrom.js";
import { uglyCases } from "../ugly/uglyContracts.js";
import { compiledInSwift, turned } from "./compiledInSwift.js";
import { hostileNames } from "./hostileNames.js";

it(`all ${String(uglyCases.length)} ugly contracts compile in Swift, with every setting turned`, async () => {
  if (!canCompileSwift("ugly contracts in Swift")) return;
  const contracts = uglyCases.map(({ document, pages }, at) => plannedRest(`case${String(at)}`, document, pages));
  expect((await compiledInSwift(contracts, turned)).complaints).toEqual([]);
});

it(`${String(hostileNames.length)} hostile names in ${String(positions.length)} positions compile in Swift`, async () => {
  if (!canCompileSwift("hostile names in Swift")) return;
  expect(hostileNames.length * positions.length).toBeGreaterThan(600);
  const { complaints } = await compiledInSwift([plannedRest("names", hostileContract(hostileNames))], {});
  expect(complaints).toEqual([]);
});

const count = Number(process.env["RANDOM_CONTRACTS"] ?? 60);
const firstSeed = Number(process.env["RANDOM_SEED"] ?? 1);
/** As many contracts as are compiled at once. */
const together = 20;

it(`${String(count)} random contracts compile in Swift without a warning`, async () => {
  if (!canCompileSwift("random contracts in Swift")) return;
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
    complaints.push(...(await compiledInSwift(contracts, isTurned ? turned : {})).complaints);
  }
  process.stdout.write(`${String(count)} random contracts with ${String(calls)} calls in Swift\n`);
  expect(complaints).toEqual([]);
  expect([...everyFeature].filter((feature) => !occurred.has(feature))).toEqual([]);
});
