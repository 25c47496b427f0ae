import type { ComponentModule, MarkupFile } from "./componentModule.js";
import { MappedText } from "./mappedText.js";
import { scriptBlocks } from "./scriptBlocks.js";

/** A page that a browser opens, as a module: the module scripts that stand in it. Other scripts can import nothing. */
export function pageModule({ text }: MarkupFile): ComponentModule {
  const mapped = new MappedText(text);
  for (const { attributes, start, end } of scriptBlocks(text))
    if (/\btype\s*=\s*["']?module\b/i.test(attributes)) mapped.take(start, end).write("\n");
  return { mapped, ending: ".js", isTyped: true };
}
