import type { OffsetPlace } from "../problem/place.js";

/** Something that a compiler refuses. */
export interface CompileError {
  readonly place: OffsetPlace;
  /** Its number or name, as the compiler writes it. */
  readonly code: string;
  /** Members that the message says by name. */
  readonly members: readonly string[];
  readonly message: string;
  /** From the place itself to the whole statement: the parts of the source that it stands in, as offsets. */
  readonly ranges: readonly (readonly [number, number])[];
  /** Where what the statement names was declared: the nearest first. */
  readonly origins: readonly (readonly [number, number])[];
  /** The function, or else the statement, around it. */
  readonly scope: readonly [number, number];
  /** The text of the statement. */
  readonly statement: string;
}
