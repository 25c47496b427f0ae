/** A node of a template, with the names of the framework's parser. */
export interface SvelteNode {
  readonly type: string;
  readonly start: number;
  readonly end: number;
  readonly name?: string;
  readonly [part: string]: unknown;
}

/** The nodes inside a node's part. */
export interface SvelteFragment {
  readonly nodes: readonly SvelteNode[];
}

/** The part of the framework's compiler that is used. */
export interface SvelteCompiler {
  readonly parse: (text: string, options: { readonly modern: true }) => { readonly fragment?: SvelteFragment };
}
