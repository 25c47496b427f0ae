import { language } from "../../../src/core/languages/kotlin/language.js";
import { printSdk } from "../../../src/core/languages/printSdk.js";
import type { ContractPlan } from "../../../src/core/sdk/sdkPlan.js";
import { KotlinCompiler } from "../../support/kotlin/kotlinCompiler.js";
import { kotlinRuntime } from "../../support/kotlin/kotlinRuntime.js";

/** Slow compilations are done one way, and the other way on request. */
export const isThorough = process.env["THOROUGH"] === "1";

/** Every setting with another value than the default. */
export const turned = {
  dates: "decoded",
  choices: "closed",
  failures: "return",
  unions: "closed",
  verify: "answers",
  testing: true,
} as const;

/**
 * Compiles one SDK of some contracts with warnings as errors, and loads all of its classes. Returns every error.
 *
 * @param printer prints the SDK
 */
export async function compiledInKotlin(
  contracts: readonly ContractPlan[],
  settings: Readonly<Record<string, unknown>>,
  printer: { readonly language: typeof language; readonly printSdk: typeof printSdk } = { language, printSdk },
): Promise<{
  readonly complaints: readonly string[];
  readonly classes: string;
  readonly files: ReadonlyMap<string, string>;
}> {
  const files = printer.printSdk(
    printer.language,
    { name: "app", contracts },
    { runtime: kotlinRuntime, scalars: new Map(), settings: { ...settings } },
  );
  const compiler = KotlinCompiler.shared();
  const { isFine, printed, classes } = await compiler.compile(files);
  if (!isFine) return { complaints: [printed], classes, files };
  const loaded = await compiler.load(classes);
  return { complaints: loaded.isFine ? [] : [loaded.printed], classes, files };
}
