import { lowerSdk } from "../sdk/lower/lowerSdk.js";
import type { LoweredSdk } from "../sdk/lower/loweredSdk.js";
import type { SdkPlan } from "../sdk/sdkPlan.js";
import type { Language, Printing } from "./language.js";
import { settledSettings } from "./settings.js";

/**
 * Prints a planned SDK in a language.
 *
 * @param printing its runtime may contain more than the SDK needs
 * @returns the text of every file, by its path inside the SDK's folder
 * @throws Error if a file of the runtime is missing from the installation
 */
export function printSdk(language: Language, plan: SdkPlan, printing: Printing): Map<string, string> {
  return printLowered(language, lowerSdk(plan, settledSettings(language.settings, printing.settings)), printing);
}

/**
 * Prints an SDK whose plan is complete, otherwise like `printSdk`.
 *
 * @throws Error if a file of the runtime is missing from the installation
 */
export function printLowered(language: Language, sdk: LoweredSdk, printing: Printing): Map<string, string> {
  const features = new Set(sdk.contracts.flatMap((contract) => [...contract.features]));
  const runtime = new Map(
    language.runtime(features, printing.settings).map((name) => {
      const source = printing.runtime.get(name);
      if (source === undefined) throw new Error(`The runtime file ${name} is missing from the installation.`);
      return [name, source];
    }),
  );
  return language.print(sdk, { ...printing, runtime });
}
