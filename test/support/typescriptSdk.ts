import type { SdkFacts } from "../../src/core/change/sdkFacts.js";
import { language } from "../../src/core/languages/typescript/language.js";
import type { TypescriptSettings } from "../../src/core/languages/typescript/settings.js";
import { printSdk } from "../../src/core/languages/printSdk.js";
import type { RestSettings } from "../../src/core/sdk/planRest.js";
import type { SdkPlan } from "../../src/core/sdk/sdkPlan.js";

/** The input for printing an SDK in tests. */
export interface SdkPrinting {
  readonly runtime: ReadonlyMap<string, string>;
  readonly scalars?: ReadonlyMap<string, ReadonlyMap<string, string>>;
  readonly settings?: TypescriptSettings;
  readonly schemas?: ReadonlyMap<string, string>;
  readonly hash?: (text: string) => string;
}

/** The files of a TypeScript SDK. */
export function printTypescriptSdk(
  plan: SdkPlan,
  { settings = {}, scalars = new Map(), ...printing }: SdkPrinting,
): Map<string, string> {
  return printSdk(language, plan, { ...printing, scalars, settings: { ...settings } });
}

/** The facts of TypeScript for the settings of an SDK. */
export function typescriptFacts(
  settings: TypescriptSettings = {},
  rest: RestSettings = {},
  scalars: ReadonlyMap<string, string> = new Map(),
): SdkFacts {
  return language.facts({ settings: { ...settings }, rest, scalars });
}
