import { printLowered, printSdk } from "../../../src/core/languages/printSdk.js";
import { language } from "../../../src/core/languages/swift/language.js";

/** Prints SDKs in Swift. This is also the entry of the bundles with a planted bug. */
export const testedPrinter = { language, printSdk, printLowered } as const;

export type TestedPrinter = typeof testedPrinter;
