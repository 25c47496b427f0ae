import { readFileSync } from "node:fs";
import { join } from "node:path";
import { settledSettings } from "../../../src/core/languages/settings.js";
import { contractContext, type RestContext } from "../../../src/core/languages/swift/contractContext.js";
import { statusCase } from "../../../src/core/languages/swift/calls/statusCase.js";
import { lowerSdk } from "../../../src/core/sdk/lower/lowerSdk.js";
import type { RestPlan } from "../../../src/core/sdk/sdkPlan.js";
import { packageRoot } from "../../support/packageRoot.js";
import { compileSwift, runSwift } from "../../support/swift/swiftCompiler.js";
import { swiftRuntime } from "../../support/swift/swiftRuntime.js";
import { playProgram } from "../vectors/playProgram.js";
import type { Played } from "../vectors/playScript.js";
import { vectorSteps, type VectorStep } from "../vectors/vectorSteps.js";
import { testedPrinter, type TestedPrinter } from "../../proof/swift/testedPrinter.js";
import { seenInSwift } from "./seenInSwift.js";
import { vectorProgram } from "./vectorProgram.js";

/** The settings of the rows in every language. */
const settings = { dates: "decoded", choices: "open", verify: "answers" } as const;

/** The parts of SDKs that differ from those that ship. */
export interface SwiftParts {
  readonly printer?: TestedPrinter;
  readonly runtime?: ReadonlyMap<string, string>;
}

/** The rows of a kind, and the calls that they need. */
export function swiftSteps(kind: VectorStep["kind"]): {
  readonly plan: RestPlan;
  readonly steps: readonly VectorStep[];
} {
  const { plan, steps } = vectorSteps();
  const own = steps.filter((step) => step.kind === kind);
  const ids = new Set(own.map(({ id }) => id));
  return {
    plan: { ...plan, calls: plan.calls.filter(({ operation }) => ids.has(operation.operationId ?? "")) },
    steps: own,
  };
}

/**
 * Compiles an SDK in Swift with a program that runs steps. Returns the program. @throws Error if that does not compile
 */
export async function compileSteps(
  plan: RestPlan,
  steps: readonly VectorStep[],
  { printer: { language, printLowered } = testedPrinter, runtime = swiftRuntime }: SwiftParts = {},
): Promise<string> {
  const sdk = lowerSdk({ name: "app", contracts: [plan] }, settledSettings(language.settings, settings));
  const files = printLowered(language, sdk, { runtime, scalars: new Map(), settings });
  const [contract] = sdk.contracts;
  if (contract?.protocol !== "rest") throw new Error("The rows are a REST contract.");
  const context: RestContext = { ...contractContext(contract, {}, new Map()), contract };
  const helpers = ["Dump.swift", "DumpedDate.swift", "Play.swift"].map((file): [string, string] => [
    `Harness/${file}`,
    readFileSync(join(packageRoot, "test/support/swift", file), "utf8"),
  ]);
  const sources = [...files].filter(([path]) => path.endsWith(".swift"));
  const all = new Map([...sources, ...vectorProgram(context, steps), ...helpers]);
  const { isFine, printed, program } = await compileSwift(all, { isStrict: false });
  if (!isFine) throw new Error(printed);
  return program;
}

/** Runs steps with an SDK in Swift. */
export async function playSwift(plan: RestPlan, steps: readonly VectorStep[], parts?: SwiftParts): Promise<Played[]> {
  const program = await compileSteps(plan, steps, parts);
  return playProgram(
    { plan, steps },
    { seen: seenInSwift, declared: statusCase, mishap: (said) => said, target: withBrackets },
    (control) => runSwift([program, control]),
  );
}

/** A target in a row: addresses of this platform contain no brackets, and encoded ones have the same meaning. */
function withBrackets(target: string, wanted: string | undefined): string {
  return wanted?.includes("[") === true ? target.replaceAll("%5B", "[").replaceAll("%5D", "]") : target;
}
