import { join } from "node:path";
import type { ContractPlan } from "../../../src/core/sdk/sdkPlan.js";
import { runSwift, writtenSwift } from "../../support/swift/swiftCompiler.js";
import { swiftRuntime } from "../../support/swift/swiftRuntime.js";
import { testedPrinter, type TestedPrinter } from "./testedPrinter.js";

/** Every setting with another value than the default. */
export const turned = {
  dates: "decoded",
  choices: "closed",
  failures: "return",
  unions: "closed",
  verify: "answers",
  testing: true,
  package: true,
  prefix: "Quay",
} as const;

/** Prints one SDK of some contracts. */
export function printedInSwift(
  contracts: readonly ContractPlan[],
  settings: Readonly<Record<string, unknown>>,
  { language, printSdk }: TestedPrinter = testedPrinter,
): Map<string, string> {
  return printSdk(language, { name: "app", contracts }, { runtime: swiftRuntime, scalars: new Map(), settings });
}

/** Compiles one SDK of some contracts far enough to find data races, with warnings as errors. Returns every error. */
export async function compiledInSwift(
  contracts: readonly ContractPlan[],
  settings: Readonly<Record<string, unknown>>,
  printer?: TestedPrinter,
): Promise<{ readonly complaints: readonly string[]; readonly files: ReadonlyMap<string, string> }> {
  const files = printedInSwift(contracts, settings, printer);
  const sources = new Map([...files].filter(([path]) => path.endsWith(".swift") && path !== "Package.swift"));
  const folder = writtenSwift(sources);
  const { isFine, printed } = await runSwift([
    ...["swiftc", "-swift-version", "6", "-warnings-as-errors", "-wmo", "-emit-sil", "-parse-as-library"],
    ...["-module-name", "App", "-o", "/dev/null"],
    ...[...sources.keys()].map((path) => join(folder, path)),
  ]);
  return { complaints: isFine ? [] : [printed], files };
}
