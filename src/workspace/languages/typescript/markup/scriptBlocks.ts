/** A script block of a component. */
export interface ScriptBlock {
  /** The attributes of its tag: ` setup lang="ts"`. */
  readonly attributes: string;
  /** The start and end of its text. */
  readonly start: number;
  readonly end: number;
}

/** Returns the script blocks of a component, in order. */
export function scriptBlocks(text: string): ScriptBlock[] {
  return [...text.matchAll(/<script\b((?:"[^"]*"|'[^']*'|[^>"'])*)>([\s\S]*?)<\/script\s*>/gi)].map((match) => {
    const [whole, attributes = "", inside = ""] = match;
    const start = match.index + whole.indexOf(inside, "<script".length + attributes.length + 1);
    return { attributes, start, end: start + inside.length };
  });
}

/** Returns whether a component's scripts are TypeScript. Its templates then are too. */
export function isTyped(blocks: readonly ScriptBlock[]): boolean {
  return blocks.some(({ attributes }) => /\blang\s*=\s*["']?tsx?\b/i.test(attributes));
}

/** Returns whether a component's scripts contain elements. */
export function holdsElements(blocks: readonly ScriptBlock[]): boolean {
  return blocks.some(({ attributes }) => /\blang\s*=\s*["']?[jt]sx\b/i.test(attributes));
}
