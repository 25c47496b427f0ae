/** Settings of a TypeScript SDK, from `sdks.<name>.settings`; checked by the configuration's schema. */
export interface TypescriptSettings {
  /** How instants (`date-time`) reach the app: as the text that was sent, or as `Date`. */
  readonly dates?: "text" | "decoded";
  /** How 64-bit integers reach the app; as number, large ones lose digits. */
  readonly int64?: "number" | "bigint" | "text";
  /** Types of the app's own by the format they stand for. */
  readonly formats?: Readonly<Record<string, OwnFormat>>;
  /** Whether an answer may hold a choice that the contract does not list yet. */
  readonly choices?: "closed" | "open";
  /** Whether calls throw their failures, or return them beside their answers. */
  readonly failures?: "throw" | "return";
  /** Whether JSON answers of REST calls are held against the contract before they are used. */
  readonly verify?: "none" | "answers";
  /** Whether there is a module for unit tests: a fake connection and builders of samples. */
  readonly testing?: boolean;
  /** The ending of relative imports: as the app's compiler settings want it when absent. */
  readonly imports?: "js" | "bare";
}

/** A type of the app's own, and the functions that make it from what is sent and back. */
export interface OwnFormat {
  readonly type: string;
  /** The module that exports all three; in the configuration a path of the project, in facts relative to the SDK. */
  readonly from: string;
  readonly decode: string;
  readonly encode: string;
}

/** What the workspace found out about the app, and the hand-written runtime sources. */
export interface TypescriptFacts {
  readonly importEnding: "js" | "bare";
  /** Runtime sources by file name, for example "send.ts". */
  readonly runtime: ReadonlyMap<string, string>;
  /** TypeScript type of each mapped GraphQL scalar, by contract. */
  readonly scalars: ReadonlyMap<string, ReadonlyMap<string, string>>;
  readonly settings?: Omit<TypescriptSettings, "imports">;
}
