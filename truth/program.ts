import { existsSync } from "node:fs";
import ts from "typescript";
import { strictest } from "../test/support/strictest.js";

/** The virtual folder of a program's files: next to the real packages, so that their types are found. */
export const folder = "/virtual";

/** The compiler options of every app. */
export const compilerSettings = { ...strictest, noUnusedLocals: false, noUnusedParameters: false };

const { options } = ts.convertCompilerOptionsFromJson(compilerSettings, folder);

/** Files are parsed and bound once for all programs that contain them unchanged. */
const parsed = new Map<string, { text: string; file: ts.SourceFile }>();
const libraries = new Map<string, ts.SourceFile | undefined>();
const real = ts.createCompilerHost(options);

/** Creates a program from files in memory. */
export function programOf(files: ReadonlyMap<string, string>, previous?: ts.Program): ts.Program {
  const all = new Map([...files].map(([path, text]) => [`${folder}/${path}`, text]));
  all.set(`${folder}/package.json`, '{ "type": "module" }');
  const host: ts.CompilerHost = {
    ...real,
    getSourceFile: (name, settings) => {
      const text = all.get(name);
      if (text === undefined) {
        if (!libraries.has(name)) libraries.set(name, real.getSourceFile(name, settings));
        return libraries.get(name);
      }
      const known = parsed.get(name);
      if (known?.text === text) return known.file;
      const file = ts.createSourceFile(name, text, settings, true);
      parsed.set(name, { text, file });
      return file;
    },
    fileExists: (name) => all.has(name) || (!name.startsWith(folder) && existsSync(name)),
    readFile: (name) => all.get(name) ?? ts.sys.readFile(name),
    directoryExists: () => true,
    getCurrentDirectory: () => folder,
  };
  const roots = [...all.keys()].filter((name) => name.endsWith(".ts"));
  return ts.createProgram(roots, options, host, previous);
}

/** Returns the lines of a file, from 1, with compile errors, and their messages. */
export function refusedLines(program: ts.Program, path: string): Map<number, string[]> {
  const file = program.getSourceFile(`${folder}/${path}`);
  if (!file) throw new Error(`no ${path}`);
  const found = new Map<number, string[]>();
  for (const each of [...program.getSyntacticDiagnostics(file), ...program.getSemanticDiagnostics(file)]) {
    const line = file.getLineAndCharacterOfPosition(each.start ?? 0).line + 1;
    found.set(line, [...(found.get(line) ?? []), ts.flattenDiagnosticMessageText(each.messageText, " ")]);
  }
  return found;
}

/** Returns the same for a script next to the files of an SDK. */
export function refusedBy(sdk: ReadonlyMap<string, string>, script: string): Map<number, string[]> {
  return refusedLines(programOf(new Map([...sdk, ["app.ts", script]])), "app.ts");
}
