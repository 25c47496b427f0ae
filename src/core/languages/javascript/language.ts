import type { Language } from "../language.js";
import { language as typescript } from "../typescript/language.js";
import { printTypescriptSdk, typescriptSpelling } from "../typescript/printTypescriptSdk.js";
import { description } from "./description.js";
import { transpiled } from "./transpiled.js";

/**
 * With this manifest, Node treats files with the extension .js as modules, and bundlers leave out what an app does not
 * import.
 */
const manifest = `${JSON.stringify({ type: "module", sideEffects: false }, undefined, 2)}\n`;

/** JavaScript: TypeScript without its types, as modules that run as they are, with declarations next to them. */
export const language: Language = {
  ...typescript,
  ...description,
  print: (sdk, printing) =>
    transpiled(printTypescriptSdk(sdk, printing, { ...printing.settings, imports: "js", isTranspiled: true })).set(
      "package.json",
      manifest,
    ),
  spelling: (contract, printing) =>
    typescriptSpelling(contract, printing, { ...printing.settings, imports: "js", isTranspiled: true }),
  exports: exportedNames,
};

/** The names that the declarations of a contract's calls and types export. */
function exportedNames(files: ReadonlyMap<string, string>, contract: string): string[] {
  return [...files].flatMap(([path, text]) => {
    const isOwn = path.startsWith(`${contract}/calls/`) || path === `${contract}/shapes.d.ts`;
    if (!isOwn || !path.endsWith(".d.ts")) return [];
    return [...text.matchAll(/^export (?:declare )?(?:const|function|interface|type) ([\w$]+)/gm)].map(
      ([, name = ""]) => name,
    );
  });
}
