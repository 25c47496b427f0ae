import type { Coordinate } from "../../../core/use/coordinate.js";
import type { SourceUseKind } from "../../../core/use/sourceUse.js";
import type { Token } from "./token.js";

/** Told of each place that depends on the SDK. */
export type Tell = (coordinate: Coordinate, kind: SourceUseKind, token: Token) => Told;

/** A place that was told of; what is done with the value is known later. */
export interface Told {
  kind: SourceUseKind;
  /** The value may be null as it is read, whatever the member is. */
  takesNull?: boolean;
  /** Source takes it for granted that the value may be null. */
  unwraps?: boolean;
  /** It is given a value that does not say its type. */
  isUntyped?: boolean;
  /** The member. */
  readonly coordinate?: Coordinate;
}
