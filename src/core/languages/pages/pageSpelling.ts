import type { Reference } from "../../contract/model.js";
import type { LoweredCall, LoweredContract, LoweredGraphqlCall } from "../../sdk/lower/loweredSdk.js";
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
  /** The page of the calls that share a file, below the SDK's folder. */
  readonly page: (contract: LoweredContract, file: string) => string;
  /** How another media type than the usual one is asked for; the words that stand above them, and the words for each. */
  readonly otherAnswers: { readonly title: string; readonly row: (lowered: LoweredCall, mediaType: string) => string };
  /** How a body is given that is sent in another media type than the usual one. */
  readonly otherBody: (lowered: LoweredCall, way: { readonly mediaType: string; readonly type: Reference }) => string;
  /** Code that performs a call with samples of what it needs. */
  readonly sample: (lowered: LoweredCall | LoweredGraphqlCall) => string;
}
