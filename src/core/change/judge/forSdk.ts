import type { Coordinate } from "../../use/coordinate.js";
import type { Level } from "../verdict.js";

/** The effect of a change on source for one SDK. */
export interface ForSdk {
  readonly sdk: string;
  readonly code: Level;
  /** The coordinates of its uses, in the SDK's own names. */
  readonly coordinates: readonly Coordinate[];
  /** The functions of the operations whose response contains it, if the SDK reads whole responses. */
  readonly callers?: readonly Coordinate[];
}

/** The verdict of a change for the source of one SDK. */
export interface JudgedForSdk extends ForSdk {
  readonly use: "used" | "not used" | "cannot tell";
}
