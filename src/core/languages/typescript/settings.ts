/** Settings of a TypeScript SDK, from `sdks.<name>.settings`; checked by the configuration's schema. */
export interface TypescriptSettings {
  /** How dates reach the app: as the text that was sent. */
  readonly dates?: "text";
  /** The ending of relative imports: as the app's compiler settings want it when absent. */
  readonly imports?: "js" | "bare";
}

/** What the workspace found out about the app, and the hand-written runtime sources. */
export interface TypescriptFacts {
  readonly importEnding: "js" | "bare";
  /** Runtime sources by file name, for example "send.ts". */
  readonly runtime: ReadonlyMap<string, string>;
  /** TypeScript type of each mapped GraphQL scalar, by contract. */
  readonly scalars: ReadonlyMap<string, ReadonlyMap<string, string>>;
}
