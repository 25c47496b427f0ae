import { lowerSdk } from "../sdk/lower/lowerSdk.js";
import type { SdkPlan } from "../sdk/sdkPlan.js";
import type { Language, Printing } from "./language.js";
import { settledSettings } from "./settings.js";

/** Prints a planned SDK in a language: the text of every file by its path inside the SDK's folder. */
export function printSdk(language: Language, plan: SdkPlan, printing: Printing): Map<string, string> {
  return language.print(lowerSdk(plan, settledSettings(language.settings, printing.settings)), printing);
}
