/** One-based line and column of a place, and how many characters it spans (at least 1). */
export interface Position {
  readonly line: number;
  readonly column: number;
  readonly length: number;
}
