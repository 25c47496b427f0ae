/**
 * The settings that several languages share, for one SDK: the values of `sdks.<name>.settings`, otherwise the
 * language's defaults.
 */
export interface SharedSettings {
  /** The type of date-times (`date-time`) in the app: the string as sent, or the language's own type. */
  readonly dates: "text" | "decoded";
  /** The type of 64-bit integers in the app: the language's usual integer, or a type that keeps all digits. */
  readonly int64: "number" | "bigint" | "text";
  /** Whether a response may contain an enum value that the contract does not list yet. */
  readonly choices: "closed" | "open";
  /** Whether unions in GraphQL responses have a member for types that the schema does not have yet. */
  readonly unions: "closed" | "open";
  /**
   * Whether the fields of a fragment are visible wherever it is spread, visible after unsealing only, or in a type of
   * their own.
   */
  readonly fragments: "inline" | "sealed" | "named";
  /** Whether calls throw their failures or return them. */
  readonly failures: "throw" | "return";
  /** Whether JSON responses of REST calls are validated against the contract before they are used. */
  readonly verify: "none" | "answers";
  /** Whether there is a module for unit tests, with a fake connection and sample builders. */
  readonly testing: boolean;
  /** Whether there is a module of calls with keys, for libraries and bindings that cache responses for screens. */
  readonly cached: boolean;
  /** The formats for which the app has types of its own. */
  readonly ownFormats: ReadonlySet<string>;
}
