/** The offsets of a value in a text, and of its key if it has one. The ends are exclusive. */
export interface ValueSpan {
  readonly start: number;
  readonly end: number;
  readonly key?: readonly [number, number];
  readonly isContainer: boolean;
}
