import type { Coordinate } from "../../../core/use/coordinate.js";
import type { SourceUseKind } from "../../../core/use/sourceUse.js";
import type { Token } from "./token.js";

/** Called for each place that uses the SDK. */
export type Tell = (coordinate: Coordinate, kind: SourceUseKind, token: Token) => Told;

/** A reported place. How the value is used is known later. */
export interface Told {
  kind: SourceUseKind;
  /** Whether the value may be null as it is read, whatever the member is. */
  takesNull?: boolean;
  /** Whether source expects that the value may be null. */
  unwraps?: boolean;
  /** Whether it receives a value without a written type. */
  isUntyped?: boolean;
  /** The member. */
  readonly coordinate?: Coordinate;
}
