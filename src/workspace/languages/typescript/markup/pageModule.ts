import type { ComponentModule, MarkupFile } from "./componentModule.js";
import { MappedText } from "./mappedText.js";
import { scriptBlocks } from "./scriptBlocks.js";

/** Returns a browser page as a module: its module scripts. Other scripts cannot import. */
export function pageModule({ text }: MarkupFile): ComponentModule {
  const mapped = new MappedText(text);
  for (const { attributes, start, end } of scriptBlocks(text))
    if (/\btype\s*=\s*["']?module\b/i.test(attributes)) mapped.take(start, end).write("\n");
  return { mapped, ending: ".js", isTyped: true };
}
