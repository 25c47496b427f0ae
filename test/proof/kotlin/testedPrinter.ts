import { language } from "../../../src/core/languages/kotlin/language.js";
import { printLowered, printSdk } from "../../../src/core/languages/printSdk.js";

/** What prints SDKs in Kotlin; also the entry of the bundles that have a bug planted in them. */
export const testedPrinter = { language, printSdk, printLowered } as const;

export type TestedPrinter = typeof testedPrinter;
