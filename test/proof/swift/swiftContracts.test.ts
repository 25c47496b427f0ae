import { expect, it } from "vitest";
import { canCompileSwift } from "../../support/swift/swiftCompiler.js";
import { hostileContract, positions } from "../hostileContract.js";
import { plannedRest } from "../plannedContracts.js";
import { compileContracts, contractCount } from "../randomBatches.js";
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

it(`${String(contractCount)} random contracts compile in Swift without a warning`, async () => {
  if (!canCompileSwift("random contracts in Swift")) return;
  const { complaints, missing } = await compileContracts(
    "Swift",
    async (contracts, isTurned) => (await compiledInSwift(contracts, isTurned ? turned : {})).complaints,
  );
  expect(complaints).toEqual([]);
  expect(missing).toEqual([]);
});
