import type { OffsetPlace } from "../problem/place.js";

/** An error of a compiler. */
export interface CompileError {
  readonly place: OffsetPlace;
  /** Its number or name, as the compiler writes it. */
  readonly code: string;
  /** The members that the message names. */
  readonly members: readonly string[];
  readonly message: string;
  /** The parts of the source around the error, as offsets, from the place itself to the whole statement. */
  readonly ranges: readonly (readonly [number, number])[];
  /** The declarations of the names in the statement, the closest first. */
  readonly origins: readonly (readonly [number, number])[];
  /** The function around it, otherwise the statement. */
  readonly scope: readonly [number, number];
  /** The text of the statement. */
  readonly statement: string;
}
