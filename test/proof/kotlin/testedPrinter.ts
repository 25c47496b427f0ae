import { language } from "../../../src/core/languages/kotlin/language.js";
import { printLowered, printSdk } from "../../../src/core/languages/printSdk.js";

/** Prints SDKs in Kotlin. This is also the entry of the bundles with a planted bug. */
export const testedPrinter = { language, printSdk, printLowered } as const;

export type TestedPrinter = typeof testedPrinter;
