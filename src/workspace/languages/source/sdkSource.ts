/** A text with its name for people. */
export interface SourceText {
  readonly document: string;
  readonly text: string;
}

/** An SDK in source. */
export interface SdkSource {
  readonly name: string;
  /** The class of a contract's connection. */
  readonly connect: string;
  /** The files of the contract's part. */
  readonly files: readonly SourceText[];
  /** The files of other contracts' parts, and of the runtime. */
  readonly others: readonly SourceText[];
}
