/** A token of source. */
export interface Token {
  readonly kind: "name" | "number" | "text" | "symbol" | "end";
  /** A name without its backticks. */
  readonly text: string;
  readonly offset: number;
  readonly end: number;
  /** It is the first one of a line. */
  readonly startsLine: boolean;
  /** It is a name in backticks, and so no word of the language. */
  readonly isQuoted?: boolean;
  /** Of a text: the tokens of each expression in it. */
  readonly inside?: readonly (readonly Token[])[];
}
