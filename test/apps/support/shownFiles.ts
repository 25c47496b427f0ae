import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect } from "vitest";
import { packageRoot } from "../../support/packageRoot.js";

/** Returns the files of a page about screens: blocks of code that begin with a comment with their path. */
export function shownFiles(page: string): Record<string, string> {
  const text = readFileSync(join(packageRoot, "docs/screens", `${page}.md`), "utf8");
  const blocks = [...text.matchAll(/^```(?:ts|tsx|vue|svelte)\n(?:\/\/|<!--) (src\/\S+)(?: -->)?\n([^]*?)^```$/gm)];
  expect(blocks.length).toBe([...text.matchAll(/^```\w+$/gm)].length);
  return Object.fromEntries(blocks.map(([, path = "", code = ""]) => [path, code]));
}
