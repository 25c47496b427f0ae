import ts from "typescript";
import { header } from "../typescript/moduleText.js";
import { tidied } from "./tidied.js";

const compilerOptions: ts.CompilerOptions = {
  target: ts.ScriptTarget.ES2022,
  module: ts.ModuleKind.ESNext,
  strict: true,
  verbatimModuleSyntax: true,
};

/**
 * Returns the files of a TypeScript SDK as modules that run as they are, each with its declarations. Other files stay.
 *
 * @param files by path
 * @throws Error if a module does not declare a type of its exports
 */
export function transpiled(files: ReadonlyMap<string, string>): Map<string, string> {
  const made = new Map<string, string>();
  for (const [path, text] of files) {
    if (!path.endsWith(".ts")) {
      made.set(path, text);
      continue;
    }
    const base = path.slice(0, -".ts".length);
    if (holdsTypesAlone(text)) {
      made.set(`${base}.d.ts`, text);
      made.set(`${base}.js`, `${header}\n\nexport {};\n`);
      continue;
    }
    // The compiler keeps the first line only in modules, and never the blank line after it.
    const [first = ""] = /^\/\/.*\n\n/.exec(text) ?? [];
    const body = text.slice(first.length);
    made.set(`${base}.d.ts`, first + declarations(path, body));
    made.set(`${base}.js`, first + tidied(ts.transpileModule(body, { compilerOptions, fileName: path }).outputText));
  }
  return made;
}

/** Whether a module contains only types, so that it is its own declaration. Most of a large SDK is in such modules. */
function holdsTypesAlone(text: string): boolean {
  return !/^(?!\/\/|\/\*\*| \*|import type |export type |export interface |[ }|)]|$)/m.test(text);
}

function declarations(fileName: string, text: string): string {
  const { outputText, diagnostics = [] } = ts.transpileDeclaration(text, {
    compilerOptions: { ...compilerOptions, declaration: true, isolatedDeclarations: true },
    fileName,
    reportDiagnostics: true,
  });
  // The compiler reports that this option needs the other one, which it removes itself.
  const [refused] = diagnostics.filter(({ code }) => code !== missingDeclaration);
  if (refused) throw new Error(`${fileName}: ${ts.flattenDiagnosticMessageText(refused.messageText, "\n")}`);
  return tidied(outputText);
}

const missingDeclaration = 5069;
