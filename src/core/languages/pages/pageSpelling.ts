import type { Reference } from "../../contract/model.js";
import type { LoweredCall, LoweredContract, LoweredGraphqlCall } from "../../sdk/lower/loweredSdk.js";
import type { PlannedArgument } from "../../sdk/sdkPlan.js";

/** How a language spells the pages of documentation. Their content is the same in all languages. */
export interface PageSpelling {
  /** The language's name in Markdown. */
  readonly fence: string;
  readonly callName: (lowered: LoweredCall | LoweredGraphqlCall) => string;
  /** The function for all pages of a call. */
  readonly pagesName: (lowered: LoweredCall) => string;
  readonly argumentName: (argument: PlannedArgument) => string;
  /** A type as the app gives or receives it. */
  readonly type: (reference: Reference, way: "given" | "got") => string;
  readonly answerType: (lowered: LoweredCall) => string;
  /** The page of the calls that share a file, below the SDK's folder. */
  readonly page: (contract: LoweredContract, file: string) => string;
  /** How another media type than the default one is requested: the title, and the text for each media type. */
  readonly otherAnswers: { readonly title: string; readonly row: (lowered: LoweredCall, mediaType: string) => string };
  /** How a body is given in another media type than the default one. */
  readonly otherBody: (lowered: LoweredCall, way: { readonly mediaType: string; readonly type: Reference }) => string;
  /** Code that makes a call with samples of its required values. */
  readonly sample: (lowered: LoweredCall | LoweredGraphqlCall) => string;
}
