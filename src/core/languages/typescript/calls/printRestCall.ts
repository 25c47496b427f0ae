import type { LoweredCall } from "../../../sdk/lower/loweredSdk.js";
import type { RestContext } from "../contractContext.js";
import { printAnswer, printAnswers } from "./printAnswer.js";
import { printArguments } from "./printArguments.js";
import { printCallFunction } from "./printCallFunction.js";
import { printFailure } from "./printFailure.js";
import { printHeaders } from "./printHeaders.js";
import { printPages } from "./printPages.js";

/** Prints one call: its argument, response and failure types, the guard for its failures, and the function. */
export function printRestCall(lowered: LoweredCall, context: RestContext): string {
  const parts = [printArguments, printAnswer, printAnswers, printFailure, printHeaders, printCallFunction, printPages];
  return parts
    .map((print) => print(lowered, context))
    .filter((part) => part !== "")
    .join("\n");
}
