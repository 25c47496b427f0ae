import type { Coordinate } from "../../use/coordinate.js";
import type { Level } from "../verdict.js";

/** What a change means for source written against one SDK. */
export interface ForSdk {
  readonly sdk: string;
  readonly code: Level;
  /** How source depends on what changed, in the SDK's own names. */
  readonly coordinates: readonly Coordinate[];
  /** What calls the operations that answer it, where the SDK reads all of an answer. */
  readonly callers?: readonly Coordinate[];
}

/** What a change does to the source that is written against one SDK. */
export interface JudgedForSdk extends ForSdk {
  readonly use: "used" | "not used" | "cannot tell";
}
