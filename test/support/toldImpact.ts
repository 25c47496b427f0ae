/** The output of `impact --json`, as far as tests read it. */
export interface ToldImpact {
  readonly contracts: readonly {
    readonly changes: readonly {
      readonly code: string;
      readonly use: string;
      readonly verdict: { readonly code: string; readonly apps: string };
      readonly hits: readonly { readonly file?: string; readonly line?: number }[];
    }[];
  }[];
}
