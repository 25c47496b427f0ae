import { isDeepStrictEqual } from "node:util";
import { expect, it } from "vitest";
import { playSwift, swiftSteps } from "../../languages/swift/playSwift.js";
import { canCompileSwift } from "../../support/swift/swiftCompiler.js";
import { coreWithBug } from "../planted/coreWithBug.js";
import { hostileContract } from "../hostileContract.js";
import { plannedRest, randomGraphql, randomRest } from "../plannedContracts.js";
import { compiledInSwift } from "./compiledInSwift.js";
import { hostileNames } from "./hostileNames.js";
import { inTwos } from "./inTwos.js";
import { printerBugs, type Finder } from "./printerBugs.js";
import { testedPrinter, type TestedPrinter } from "./testedPrinter.js";

const seeds = [1, 2, 3, 4, 5, 6];

const contractsOf = {
  "hostile names": () => [plannedRest("names", hostileContract(hostileNames))],
  random: () => seeds.map((seed) => randomRest(seed).plan),
  "random queries": () => seeds.map((seed) => randomGraphql(seed, "open")),
};

/** The errors that a finder reports about SDKs from a printer. */
async function complaints(by: Finder, printer: TestedPrinter): Promise<readonly string[]> {
  if ("contracts" in by) return (await compiledInSwift(contractsOf[by.contracts](), {}, printer)).complaints;
  const { plan, steps } = swiftSteps(by.rows);
  try {
    const played = await playSwift(plan, steps, { printer });
    return played
      .filter(({ expected, found }) => !isDeepStrictEqual(expected, found))
      .map(({ step }) => `${step.kind}: ${step.why}`);
  } catch (error) {
    return [error instanceof Error ? error.message : String(error)];
  }
}

/** Only bugs whose names match this, on request. */
const wanted = new RegExp(process.env["PLANTED"] ?? "");
const bugs = printerBugs.filter(({ name }) => wanted.test(name));

it.skipIf(process.env["THOROUGH"] === undefined)(
  `${String(bugs.length)} bugs of what prints Swift are found`,
  async ({ skip }) => {
    skip(!canCompileSwift("planted bugs of what prints Swift"));
    await inTwos(new Set(bugs.map((bug) => JSON.stringify(bug.by))), async (by) => {
      expect([by, ...(await complaints(JSON.parse(by) as Finder, testedPrinter))]).toEqual([by]);
    });
    const missed: string[] = [];
    await inTwos(bugs, async ({ by, ...bug }) => {
      const core = await coreWithBug<{ testedPrinter: TestedPrinter }>(bug, "swift/testedPrinter.ts");
      const found = await complaints(by, core.testedPrinter);
      if (found.length === 0) missed.push(bug.name);
      const first = found[0]?.split("\n").find((line) => line.includes("error:")) ?? found[0]?.split("\n")[0];
      process.stdout.write(`${bug.name}: ${first ?? "MISSED"}\n`);
    });
    expect(missed).toEqual([]);
  },
);
