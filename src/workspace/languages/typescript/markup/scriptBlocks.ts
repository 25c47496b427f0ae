/** A script block of a component. */
export interface ScriptBlock {
  /** What stands in its tag: ` setup lang="ts"`. */
  readonly attributes: string;
  /** Where its text begins and ends. */
  readonly start: number;
  readonly end: number;
}

/** The script blocks of a component, in their order. */
export function scriptBlocks(text: string): ScriptBlock[] {
  return [...text.matchAll(/<script\b((?:"[^"]*"|'[^']*'|[^>"'])*)>([\s\S]*?)<\/script\s*>/gi)].map((match) => {
    const [whole, attributes = "", inside = ""] = match;
    const start = match.index + whole.indexOf(inside, "<script".length + attributes.length + 1);
    return { attributes, start, end: start + inside.length };
  });
}

/** Whether a component's scripts are in TypeScript, which its templates are then too. */
export function isTyped(blocks: readonly ScriptBlock[]): boolean {
  return blocks.some(({ attributes }) => /\blang\s*=\s*["']?tsx?\b/i.test(attributes));
}

/** Whether a component's scripts hold elements. */
export function holdsElements(blocks: readonly ScriptBlock[]): boolean {
  return blocks.some(({ attributes }) => /\blang\s*=\s*["']?[jt]sx\b/i.test(attributes));
}
