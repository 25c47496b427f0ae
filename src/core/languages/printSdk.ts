import { lowerSdk } from "../sdk/lower/lowerSdk.js";
import type { LoweredSdk } from "../sdk/lower/loweredSdk.js";
import type { SdkPlan } from "../sdk/sdkPlan.js";
import type { Language, Printing } from "./language.js";
import { settledSettings } from "./settings.js";

/**
 * Prints a planned SDK in a language: the text of every file by its path inside the SDK's folder.
 *
 * @param printing its runtime may hold more than the SDK needs
 * @throws Error when it lacks something that the SDK needs
 */
export function printSdk(language: Language, plan: SdkPlan, printing: Printing): Map<string, string> {
  return printLowered(language, lowerSdk(plan, settledSettings(language.settings, printing.settings)), printing);
}

/**
 * Prints an SDK of which everything is decided; else as `printSdk`.
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
