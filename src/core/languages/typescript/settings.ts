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
  /** Whether there is a module of described calls, for what keeps answers for screens. */
  readonly cached?: boolean;
  /** The frameworks for which there are bindings that show described calls. */
  readonly views?: Framework | readonly Framework[];
  /** Whether a union of a GraphQL answer has a member for types that the schema does not have yet. */
  readonly unions?: "closed" | "open";
  /** Whether the fields of a fragment are seen where it is spread, or only by who unseals it. */
  readonly fragments?: "inline" | "sealed";
  /** Whether operations carry their text parsed too, for GraphQL clients that take typed parsed documents. */
  readonly parsed?: boolean;
  /** Whether there is a list of all operations with their hashes, and operations have ids. */
  readonly manifest?: boolean;
  /** Whether there is a copy of the GraphQL schema as text. */
  readonly schema?: boolean;
  /** The ending of relative imports: as the app's compiler settings want it when absent. */
  readonly imports?: "js" | "bare";
}

/** A framework for screens. */
export type Framework = "angular" | "react" | "solid" | "svelte" | "vue";

/** A type of the app's own, and the functions that make it from what is sent and back. */
export interface OwnFormat {
  readonly type: string;
  /** The module that exports all three; in the configuration a path of the project, in facts relative to the SDK. */
  readonly from: string;
  readonly decode: string;
  readonly encode: string;
}
