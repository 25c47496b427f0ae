import { readFileSync } from "node:fs";
import { join } from "node:path";
import { contractContext, type RestContext } from "../../../src/core/languages/kotlin/contractContext.js";
import { language } from "../../../src/core/languages/kotlin/language.js";
import { statusClass } from "../../../src/core/languages/kotlin/calls/statusClass.js";
import { printLowered } from "../../../src/core/languages/printSdk.js";
import { settledSettings } from "../../../src/core/languages/settings.js";
import { lowerSdk } from "../../../src/core/sdk/lower/lowerSdk.js";
import type { RestPlan } from "../../../src/core/sdk/sdkPlan.js";
import type { KotlinCompiler } from "../../support/kotlin/kotlinCompiler.js";
import { kotlinRuntime } from "../../support/kotlin/kotlinRuntime.js";
import { packageRoot } from "../../support/packageRoot.js";
import { playProgram } from "../vectors/playProgram.js";
import type { Played } from "../vectors/playScript.js";
import type { VectorStep } from "../vectors/vectorSteps.js";
import { seenInKotlin } from "./seenInKotlin.js";
import { vectorProgram } from "./vectorProgram.js";

/** The settings of the rows in every language. */
const settings = { dates: "decoded", choices: "open", verify: "answers" } as const;

/** An SDK in Kotlin with a program that runs steps. */
export interface CompiledSteps {
  readonly plan: RestPlan;
  readonly steps: readonly VectorStep[];
  /** The program's class, and the folder of all classes. */
  readonly program: string;
  readonly classes: string;
  /** The texts of the compiled runtime by path. */
  readonly runtime: ReadonlyMap<string, string>;
}

/**
 * Compiles steps and an SDK in Kotlin that runs them.
 *
 * @param printer prints the SDK
 * @throws Error if that does not compile
 */
export async function compileSteps(
  compiler: KotlinCompiler,
  { plan, steps }: { readonly plan: RestPlan; readonly steps: readonly VectorStep[] },
  printer: { readonly language: typeof language; readonly printLowered: typeof printLowered } = {
    language,
    printLowered,
  },
): Promise<CompiledSteps> {
  const sdk = lowerSdk({ name: "app", contracts: [plan] }, settledSettings(language.settings, settings));
  const files = printer.printLowered(printer.language, sdk, { runtime: kotlinRuntime, scalars: new Map(), settings });
  const [contract] = sdk.contracts;
  if (contract?.protocol !== "rest") throw new Error("The rows are a REST contract.");
  const context: RestContext = {
    ...contractContext(contract, "app", { scalars: new Map(), formats: {} }),
    contract,
  };
  const program = vectorProgram(context, steps);
  const helpers = ["Dump.kt", "Play.kt"].map((file): [string, string] => [
    `harness/${file}`,
    readFileSync(join(packageRoot, "test/support/kotlin", file), "utf8"),
  ]);
  const compiled = await compiler.compile(new Map([...files, ...program, ...helpers]), { isStrict: false });
  if (!compiled.isFine) throw new Error(compiled.printed);
  const runtime = new Map([...files].filter(([path]) => path.startsWith("wire/")));
  return { plan, steps, program: `${context.package}.MainKt`, classes: compiled.classes, runtime };
}

/** Runs steps with an SDK in Kotlin. */
export async function playKotlin(
  compiler: KotlinCompiler,
  plan: RestPlan,
  { steps }: { readonly steps: readonly VectorStep[] },
): Promise<Played[]> {
  return playCompiled(compiler, await compileSteps(compiler, { plan, steps }));
}

const mishaps: Readonly<Record<string, string>> = {
  Unexpected: "unexpected",
  Malformed: "malformed",
  Unreachable: "unreachable",
  TimedOut: "timed-out",
};

/** @param instead folders of classes that come before those of the SDK */
export async function playCompiled(
  compiler: KotlinCompiler,
  { plan, steps, program, classes }: CompiledSteps,
  instead: readonly string[] = [],
): Promise<Played[]> {
  return playProgram(
    { plan, steps },
    { seen: seenInKotlin, declared: statusClass, mishap: (said) => mishaps[said] },
    (control) => compiler.run(program, [...instead, classes], [control]),
  );
}
