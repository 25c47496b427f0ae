/**
 * Settings that several languages share, as they hold for one SDK: what `sdks.<name>.settings` says, and the language's
 * own default where it says nothing.
 */
export interface SharedSettings {
  /** How instants (`date-time`) reach the app: as the text that was sent, or as the language's own type. */
  readonly dates: "text" | "decoded";
  /** How 64-bit integers reach the app: as the language's usual integer, or so that no digit is lost. */
  readonly int64: "number" | "bigint" | "text";
  /** Whether an answer may hold a choice that the contract does not list yet. */
  readonly choices: "closed" | "open";
  /** Whether a union of a GraphQL answer has a member for types that the schema does not have yet. */
  readonly unions: "closed" | "open";
  /** Whether the fields of a fragment are seen where it is spread, or only by who unseals it, or whether it is a type. */
  readonly fragments: "inline" | "sealed" | "named";
  /** Whether calls throw their failures, or return them beside their answers. */
  readonly failures: "throw" | "return";
  /** Whether JSON answers of REST calls are held against the contract before they are used. */
  readonly verify: "none" | "answers";
  /** Whether there is a module for unit tests: a fake connection and builders of samples. */
  readonly testing: boolean;
  /** Whether there is a module of described calls, for libraries and bindings that keep answers for screens. */
  readonly cached: boolean;
  /** Formats for which the app has types of its own. */
  readonly ownFormats: ReadonlySet<string>;
}
