import type { ShownTexts } from "../../core/problem/shownTexts.js";
import type { Gate } from "../../core/change/judge/gate.js";
import type { ContractImpact } from "../../core/change/judge/judgedChange.js";
import type { SetAside } from "../../core/contract/model.js";
import type { Problem } from "../../core/problem/problem.js";
import type { ExitCode } from "../project/halt.js";

export interface GenerateOptions {
  /** Names of SDKs; all when empty. */
  readonly sdks: readonly string[];
  readonly dryRun: boolean;
  readonly partial: boolean;
  readonly force: boolean;
  /** Fetch remote contracts anew. */
  readonly fresh: boolean;
  /** A part that was set aside is a finding. */
  readonly strict: boolean;
  /** Which changes since the pin hold an SDK back. */
  readonly gate: Gate;
  /** Whether changes since the pin are found before the SDK is written, or left to `GenerateOutcome.compare`. */
  readonly comparing?: "before" | "after";
}

export interface ContractOutcome {
  readonly name: string;
  readonly protocol: "rest" | "graphql";
  readonly version: string;
  readonly from: readonly string[];
  readonly calls: number;
  readonly types: number;
  /** Operations of query documents that do not fit. */
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
  /** What became of the file for editors; absent where none is wanted. */
  readonly editors?: "written" | "unchanged" | "would be written" | "removed" | "held back";
  readonly problems: readonly Problem[];
  /** A killed run was completed first. */
  readonly completedEarlier: boolean;
  readonly texts: ShownTexts;
  /** Texts of the pins as they were before. */
  readonly pinTexts: ShownTexts;
  readonly exitCode: ExitCode;
  /** Finds what changed since the pins as they were before the run, where that was left for later. */
  readonly compare?: () => Promise<readonly ContractImpact[]>;
}
