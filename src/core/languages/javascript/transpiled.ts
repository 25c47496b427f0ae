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
 * The files of a TypeScript SDK as modules that run as they are, each with its declarations; others stay.
 *
 * @param files by path
 * @throws Error when a module leaves a type of what it exports unsaid
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
    // The compiler keeps the first line in modules alone, and the blank line after it nowhere.
    const [first = ""] = /^\/\/.*\n\n/.exec(text) ?? [];
    const body = text.slice(first.length);
    made.set(`${base}.d.ts`, first + declarations(path, body));
    made.set(`${base}.js`, first + tidied(ts.transpileModule(body, { compilerOptions, fileName: path }).outputText));
  }
  return made;
}

/** Whether a module runs nothing, so that it is its own declaration; most of a large SDK is in such modules. */
function holdsTypesAlone(text: string): boolean {
  return !/^(?!\/\/|\/\*\*| \*|import type |export type |export interface |[ }|)]|$)/m.test(text);
}

function declarations(fileName: string, text: string): string {
  const { outputText, diagnostics = [] } = ts.transpileDeclaration(text, {
    compilerOptions: { ...compilerOptions, declaration: true, isolatedDeclarations: true },
    fileName,
    reportDiagnostics: true,
  });
  // The compiler says that this option needs the other one, which it takes out by itself.
  const [refused] = diagnostics.filter(({ code }) => code !== missingDeclaration);
  if (refused) throw new Error(`${fileName}: ${ts.flattenDiagnosticMessageText(refused.messageText, "\n")}`);
  return tidied(outputText);
}

const missingDeclaration = 5069;
