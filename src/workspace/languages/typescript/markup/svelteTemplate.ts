/** A node of a template, by the names that the framework's parser gives. */
export interface SvelteNode {
  readonly type: string;
  readonly start: number;
  readonly end: number;
  readonly name?: string;
  readonly [part: string]: unknown;
}

/** The nodes below one, as its parts hold them. */
export interface SvelteFragment {
  readonly nodes: readonly SvelteNode[];
}

/** What the compiler of the app's framework says of a component. */
export interface SvelteCompiler {
  readonly parse: (text: string, options: { readonly modern: true }) => { readonly fragment?: SvelteFragment };
}
