/** The settings of a TypeScript SDK, from `sdks.<name>.settings`, validated by the configuration's schema. */
export interface TypescriptSettings {
  /** The type of date-times (`date-time`) in the app: the string as sent, or `Date`. */
  readonly dates?: "text" | "decoded";
  /** The type of 64-bit integers in the app. As number, large ones lose digits. */
  readonly int64?: "number" | "bigint" | "text";
  /** The app's own types by format. */
  readonly formats?: Readonly<Record<string, OwnFormat>>;
  /** Whether a response may contain an enum value that the contract does not list yet. */
  readonly choices?: "closed" | "open";
  /** Whether calls throw their failures or return them. */
  readonly failures?: "throw" | "return";
  /** Whether JSON responses of REST calls are validated against the contract before they are used. */
  readonly verify?: "none" | "answers";
  /** Whether there is a module for unit tests, with a fake connection and sample builders. */
  readonly testing?: boolean;
  /** Whether there is a module of described calls, for libraries that cache responses for screens. */
  readonly cached?: boolean;
  /** The frameworks for which there are bindings that show described calls. */
  readonly views?: Framework | readonly Framework[];
  /** Whether unions in GraphQL responses have a member for types that the schema does not have yet. */
  readonly unions?: "closed" | "open";
  /** Whether the fields of a fragment are visible wherever it is spread, or only after unsealing. */
  readonly fragments?: "inline" | "sealed";
  /** Whether operations also contain their parsed text, for GraphQL clients that take typed parsed documents. */
  readonly parsed?: boolean;
  /** Whether there is a list of all operations with their hashes, and whether operations have ids. */
  readonly manifest?: boolean;
  /** Whether there is a copy of the GraphQL schema as text. */
  readonly schema?: boolean;
  /** The extension of relative imports. Default: as the app's compiler settings require. */
  readonly imports?: "js" | "bare";
}

/** A framework for user interfaces. */
export type Framework = "angular" | "react" | "solid" | "svelte" | "vue";

/** A type of the app's own, and the functions that convert it from and to JSON. */
export interface OwnFormat {
  readonly type: string;
  /** The module that exports all three: in the configuration a path in the project, in facts relative to the SDK. */
  readonly from: string;
  readonly decode: string;
  readonly encode: string;
}
