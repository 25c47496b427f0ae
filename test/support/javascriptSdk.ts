import { language } from "../../src/core/languages/javascript/language.js";
import { printSdk } from "../../src/core/languages/printSdk.js";
import type { SdkPlan } from "../../src/core/sdk/sdkPlan.js";
import type { SdkPrinting } from "./typescriptSdk.js";

/** The files of a JavaScript SDK. */
export function printJavascriptSdk(
  plan: SdkPlan,
  { settings = {}, scalars = new Map(), ...printing }: SdkPrinting,
): Map<string, string> {
  return printSdk(language, plan, { ...printing, scalars, settings: { ...settings } });
}
