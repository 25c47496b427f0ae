/** Where a value of a text stands, and its key if it has one; offsets, the ends exclusive. */
export interface ValueSpan {
  readonly start: number;
  readonly end: number;
  readonly key?: readonly [number, number];
  readonly isContainer: boolean;
}
