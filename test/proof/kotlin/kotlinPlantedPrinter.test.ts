import { isDeepStrictEqual } from "node:util";
import { expect, it } from "vitest";
import { compileSteps, playCompiled } from "../../languages/kotlin/playKotlin.js";
import { vectorSteps } from "../../languages/vectors/vectorSteps.js";
import { canCompileKotlin, KotlinCompiler } from "../../support/kotlin/kotlinCompiler.js";
import { coreWithBug } from "../planted/coreWithBug.js";
import { compiledInKotlin, isThorough } from "./compiledInKotlin.js";
import { hostileContract } from "../hostileContract.js";
import { hostileNames } from "./hostileNames.js";
import { largeContract } from "./largeContract.js";
import { plannedRest, randomGraphql, randomRest } from "../plannedContracts.js";
import { printerBugs, type Finder } from "./printerBugs.js";
import { testedPrinter, type TestedPrinter } from "./testedPrinter.js";

const seeds = [1, 2, 3, 4, 5, 6];

const contractsOf = {
  "hostile names": () => [plannedRest("names", hostileContract(hostileNames))],
  large: () => [plannedRest("large", largeContract())],
  random: () => seeds.map((seed) => randomRest(seed).plan),
  "random queries": () => seeds.map((seed) => randomGraphql(seed, "open")),
};

/** The errors that a finder reports about SDKs from a printer. */
async function complaints(by: Finder, printer: TestedPrinter): Promise<readonly string[]> {
  if ("contracts" in by) return (await compiledInKotlin(contractsOf[by.contracts](), {}, printer)).complaints;
  const { plan, steps } = vectorSteps();
  const own = steps.filter(({ kind }) => kind === by.rows);
  const ids = new Set(own.map(({ id }) => id));
  const calls = plan.calls.filter(({ operation }) => ids.has(operation.operationId ?? ""));
  const compiler = KotlinCompiler.shared();
  let compiled;
  try {
    compiled = await compileSteps(compiler, { plan: { ...plan, calls }, steps: own }, printer);
  } catch (error) {
    return [error instanceof Error ? error.message : String(error)];
  }
  const played = await playCompiled(compiler, compiled);
  return played
    .filter(({ expected, found }) => !isDeepStrictEqual(expected, found))
    .map(({ step }) => `${step.kind}: ${step.why}`);
}

/** Only bugs whose names match this, on request. */
const wanted = new RegExp(process.env["PLANTED"] ?? "");
const bugs = printerBugs.filter(({ name }) => wanted.test(name));

it.skipIf(!isThorough)(`${String(bugs.length)} bugs of what prints Kotlin are found`, async ({ skip }) => {
  skip(!canCompileKotlin("planted bugs of what prints Kotlin"));
  for (const by of new Set(bugs.map((bug) => JSON.stringify(bug.by))))
    expect([by, ...(await complaints(JSON.parse(by) as Finder, testedPrinter))]).toEqual([by]);
  const missed: string[] = [];
  for (const { by, ...bug } of bugs) {
    const core = await coreWithBug<{ testedPrinter: TestedPrinter }>(bug, "kotlin/testedPrinter.ts");
    const found = await complaints(by, core.testedPrinter);
    if (found.length === 0) missed.push(bug.name);
    process.stdout.write(`${bug.name}: ${found[0]?.split("\n")[0] ?? "MISSED"}\n`);
  }
  expect(missed).toEqual([]);
});
