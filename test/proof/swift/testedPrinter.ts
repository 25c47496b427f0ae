import { printLowered, printSdk } from "../../../src/core/languages/printSdk.js";
import { language } from "../../../src/core/languages/swift/language.js";

/** What prints SDKs in Swift; also the entry of the bundles that have a bug planted in them. */
export const testedPrinter = { language, printSdk, printLowered } as const;

export type TestedPrinter = typeof testedPrinter;
