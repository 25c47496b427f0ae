import type { ShownTexts } from "../../core/problem/shownTexts.js";
import type { Gate } from "../../core/change/judge/gate.js";
import type { ContractImpact } from "../../core/change/judge/judgedChange.js";
import type { SetAside } from "../../core/contract/model.js";
import type { Problem } from "../../core/problem/problem.js";
import type { ExitCode } from "../project/halt.js";

export interface GenerateOptions {
  /** Names of SDKs; all if empty. */
  readonly sdks: readonly string[];
  readonly dryRun: boolean;
  readonly partial: boolean;
  readonly force: boolean;
  /** Fetch remote contracts again. */
  readonly fresh: boolean;
  /** Whether a skipped part is an error. */
  readonly strict: boolean;
  /** The changes since the pin for which an SDK is not written. */
  readonly gate: Gate;
  /** Whether changes since the pin are computed before the SDK is written, or later by `GenerateOutcome.compare`. */
  readonly comparing?: "before" | "after";
}

export interface ContractOutcome {
  readonly name: string;
  readonly protocol: "rest" | "graphql";
  readonly version: string;
  readonly from: readonly string[];
  readonly calls: number;
  readonly types: number;
  /** The number of operations in query documents with errors. */
  readonly leftOut: number;
  readonly untyped: number;
  readonly setAside: readonly SetAside[];
}

export interface SdkOutcome {
  readonly name: string;
  readonly into: string;
  readonly state: "written" | "unchanged" | "held back" | "would be written";
  readonly files: {
    readonly added: number;
    readonly changed: number;
    readonly unchanged: number;
    readonly removed: number;
  };
  readonly contracts: readonly ContractOutcome[];
  readonly impacts: readonly ContractImpact[];
  readonly problems: readonly Problem[];
}

export interface GenerateOutcome {
  readonly sdks: readonly SdkOutcome[];
  /** The result for the file for editors; absent if it is not wanted. */
  readonly editors?: "written" | "unchanged" | "would be written" | "removed" | "held back";
  readonly problems: readonly Problem[];
  /** Whether a killed run was completed first. */
  readonly completedEarlier: boolean;
  readonly texts: ShownTexts;
  /** The texts of the old pins. */
  readonly pinTexts: ShownTexts;
  readonly exitCode: ExitCode;
  /** Computes the changes since the old pins, if that was left for later. */
  readonly compare?: () => Promise<readonly ContractImpact[]>;
}
