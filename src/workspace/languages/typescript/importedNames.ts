import { basename, dirname, relative, resolve } from "node:path";
import type { ImportedName } from "../languageTools.js";
import type { AppSource } from "./appSources.js";

/** Returns names that sources import from inside a folder, or by an alias that ends like the folder. */
export function importedNames(sources: readonly AppSource[], root: string, folder: string): ImportedName[] {
  return sources.flatMap(({ document, text }) =>
    importsOf(text, resolve(root, document), folder).map((found) => ({ document, ...found })),
  );
}

function importsOf(text: string, file: string, folder: string): { name: string; offset: number }[] {
  const found: { name: string; offset: number }[] = [];
  for (const match of text.matchAll(/\b(?:import|export)\s+(?:type\s+)?\{([^}]*)\}\s*from\s*["']([^"'\n]+)["']/g)) {
    const [whole, list = "", from = ""] = match;
    const isInside = from.startsWith(".")
      ? !relative(folder, resolve(dirname(file), from)).startsWith("..")
      : from.split("/").includes(basename(folder));
    if (!isInside) continue;
    const start = match.index + whole.indexOf("{") + 1;
    for (const each of list.matchAll(/(?:^|,)\s*(?:type\s+)?([\w$]+)/g))
      found.push({ name: each[1] ?? "", offset: start + each.index + each[0].lastIndexOf(each[1] ?? "") });
  }
  return found;
}
