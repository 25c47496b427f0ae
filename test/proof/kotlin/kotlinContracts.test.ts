import { expect, it } from "vitest";
import { canCompileKotlin } from "../../support/kotlin/kotlinCompiler.js";
import { uglyCases } from "../ugly/uglyContracts.js";
import { hostileContract, positions } from "../hostileContract.js";
import { hostileNames } from "./hostileNames.js";
import { largeContract } from "./largeContract.js";
import { compiledInKotlin, isThorough, turned } from "./compiledInKotlin.js";
import { plannedRest } from "../plannedContracts.js";
import { compileContracts, contractCount } from "../randomBatches.js";

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
  "a contract beyond the JVM's limits compiles in Kotlin, %s",
  async (how, settings) => {
    if (!canCompileKotlin(`a large contract in Kotlin, ${how}`)) return;
    expect((await compiledInKotlin([plannedRest("large", largeContract())], settings)).complaints).toEqual([]);
  },
);

it(`${String(contractCount)} random contracts compile in Kotlin without a warning, and every class loads`, async () => {
  if (!canCompileKotlin("random contracts in Kotlin")) return;
  const { complaints, missing } = await compileContracts(
    "Kotlin",
    async (contracts, isTurned) => (await compiledInKotlin(contracts, isTurned ? turned : {})).complaints,
  );
  expect(complaints).toEqual([]);
  expect(missing).toEqual([]);
});
