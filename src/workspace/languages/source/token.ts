/** A token of source. */
export interface Token {
  readonly kind: "name" | "number" | "text" | "symbol" | "end";
  /** A name without its backticks. */
  readonly text: string;
  readonly offset: number;
  readonly end: number;
  /** Whether it is the first one of a line. */
  readonly startsLine: boolean;
  /** Whether it is a name in backticks, and therefore not a keyword. */
  readonly isQuoted?: boolean;
  /** For a string: the tokens of each expression in it. */
  readonly inside?: readonly (readonly Token[])[];
}
