/** A token of source. */
export interface Token {
  readonly kind: "name" | "number" | "text" | "symbol" | "end";
  /** A name without its backticks. */
  readonly text: string;
  readonly offset: number;
  readonly end: number;
  /** It is the first one of a line. */
  readonly startsLine: boolean;
  /** Of a text: the tokens of each expression in it. */
  readonly inside?: readonly (readonly Token[])[];
}
