/** A statement of an app, or a block with its content. */
export interface AppNode {
  /** From 1. */
  readonly line: number;
  readonly text: string;
  /** The content of a block. */
  readonly inside?: readonly AppNode[];
  /** The name that it declares. */
  readonly declares: string | undefined;
  /** The app's own names in it. */
  readonly says: readonly string[];
  /** Whether it is kept wherever the block around it is. */
  readonly isAlways: boolean;
}

export type AppBlock = AppNode & { readonly inside: readonly AppNode[] };

export function isBlock(node: AppNode): node is AppBlock {
  return node.inside !== undefined;
}

/** Returns the lines of an app as blocks. Each line is a statement, begins a block, or ends one. */
export function appTree(text: string): AppNode[] {
  const top: AppNode[] = [];
  const open: { readonly line: number; readonly text: string; readonly inside: AppNode[] }[] = [];
  text.split("\n").forEach((line, at) => {
    const bare = line.trim();
    if (bare === "") return;
    const into = open.at(-1)?.inside ?? top;
    if (bare === "}") {
      const block = open.pop();
      if (!block) throw new Error(`A block ends that never began: line ${String(at + 1)}.`);
      (open.at(-1)?.inside ?? top).push(nodeOf(block.line, block.text, block.inside));
    } else if (bare.endsWith("{")) open.push({ line: at + 1, text: line, inside: [] });
    else into.push(nodeOf(at + 1, line));
  });
  return top;
}

function nodeOf(line: number, text: string, inside?: readonly AppNode[]): AppNode {
  const declares =
    /^\s*(?:export )?(?:async )?(?:declare )?(?:const|let|function|type) (\w+)/.exec(text)?.[1] ??
    /^\s*for (?:await )?\(const (\w+)/.exec(text)?.[1];
  const says = [...text.replace(/"[^"]*"/g, '""').matchAll(/(?<![.\w])[A-Za-z]\w*/g)]
    .map(([word]) => word)
    .filter((word) => word !== declares);
  const isAlways = /^import |^declare const |^let count/.test(text) || /^\s*void \w+;$|^\s*const answer = /.test(text);
  return { line, text, declares, says, isAlways, ...(inside ? { inside } : {}) };
}
