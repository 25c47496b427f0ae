/** A text, and what people call it. */
export interface SourceText {
  readonly document: string;
  readonly text: string;
}

/** An SDK in source. */
export interface SdkSource {
  readonly name: string;
  /** The class of a contract's connection. */
  readonly connect: string;
  /** Files of the contract's part. */
  readonly files: readonly SourceText[];
  /** Files of other contracts' parts, and of the runtime. */
  readonly others: readonly SourceText[];
}
