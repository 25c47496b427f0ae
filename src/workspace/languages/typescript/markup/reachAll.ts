import type ts from "typescript";
import { declaredNames } from "./declaredNames.js";
import type { MappedText } from "./mappedText.js";
import { own } from "./scopeHelpers.js";

/** Records that markup which cannot be read may use everything in its script. */
export function reachAll(mapped: MappedText, file: ts.SourceFile): void {
  const { values, imports } = declaredNames(file);
  for (const name of [...values, ...imports]) {
    if (name.startsWith(own)) continue;
    mapped.write(`${own}any(`);
    const at = file.text.search(new RegExp(`(?<![\\w$.])${name.replace(/\$/g, "\\$")}(?![\\w$])`));
    const range = mapped.sourceRange(at, at + name.length);
    if (range) mapped.take(...range);
    else mapped.write(name);
    mapped.write(");\n");
  }
}
