import type { Reference } from "../../contract/model.js";
import type { LoweredCall, LoweredGraphqlCall } from "../../sdk/lower/loweredSdk.js";
import type { PlannedArgument } from "../../sdk/sdkPlan.js";

/** How a language spells what the pages of documentation show; what they say is the same in all of them. */
export interface PageSpelling {
  /** What Markdown calls the language. */
  readonly fence: string;
  readonly callName: (lowered: LoweredCall | LoweredGraphqlCall) => string;
  /** The function that goes through all pages of a call that has some. */
  readonly pagesName: (lowered: LoweredCall) => string;
  readonly argumentName: (argument: PlannedArgument) => string;
  /** A type as the app gives it, or gets it. */
  readonly type: (reference: Reference, way: "given" | "got") => string;
  readonly answerType: (lowered: LoweredCall) => string;
  /** Code that performs a call with samples of what it needs. */
  readonly sample: (lowered: LoweredCall | LoweredGraphqlCall) => string;
}
