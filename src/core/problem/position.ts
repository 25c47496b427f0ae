/** One-based line and column of a place, and the number of characters that it spans (at least 1). */
export interface Position {
  readonly line: number;
  readonly column: number;
  readonly length: number;
}
