import ts from "typescript";
import type { ComponentModule, MarkupFile } from "./componentModule.js";
import { MappedText } from "./mappedText.js";
import { reachAll } from "./reachAll.js";
import { anyHelper } from "./scopeHelpers.js";
import { isTyped, scriptBlocks } from "./scriptBlocks.js";

/**
 * Returns a page whose markup cannot be read as a module: its code, all of which the markup may use. Code is between
 * two lines of dashes, in script blocks, or (in Markdown) in lines that import or export.
 */
export function unreadModule({ path, text }: MarkupFile): ComponentModule {
  const mapped = new MappedText(text);
  const fences = path.endsWith(".mdx") ? undefined : /^\s*---\r?\n([\s\S]*?)^---/m.exec(text);
  if (fences) {
    const start = fences.index + fences[0].indexOf(fences[1] ?? "", fences[0].indexOf("---") + 3);
    mapped.take(start, start + (fences[1] ?? "").length).write("\n");
  }
  const blocks = scriptBlocks(text);
  for (const { start, end } of blocks) mapped.take(start, end).write("\n");
  if (path.endsWith(".mdx"))
    for (const { 0: statement, index } of text.matchAll(/^(?:import|export)\b[\s\S]*?(?=\r?\n\r?\n|$(?![\s\S]))/gm))
      mapped.take(index, index + statement.length).write("\n");
  const file = ts.createSourceFile("page.tsx", mapped.text, ts.ScriptTarget.Latest, true);
  mapped.write(`;${anyHelper}`);
  reachAll(mapped, file);
  if (!/\bexport\s+default\b/.test(file.text)) mapped.write("export default null! as any;\n");
  return { mapped, ending: ".tsx", isTyped: fences !== null && !isTyped(blocks) };
}
