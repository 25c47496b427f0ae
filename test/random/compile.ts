import { existsSync } from "node:fs";
import { Linter } from "eslint";
import ts from "typescript";
import tseslint from "typescript-eslint";
import { strictest } from "../support/strictest.js";

/** Where the files of a program seem to be; beside the real packages, so that their types are found. */
export const virtualFolder = "/virtual";

const { options } = ts.convertCompilerOptionsFromJson(strictest, virtualFolder);

const libraries = new Map<string, ts.SourceFile | undefined>();

/** Makes a program of files in memory; the platform's declarations are parsed once for all programs. */
export function programOf(files: ReadonlyMap<string, string>): ts.Program {
  const all = new Map([...files].map(([path, text]) => [`${virtualFolder}/${path}`, text]));
  all.set(`${virtualFolder}/package.json`, '{ "type": "module" }');
  const host = ts.createCompilerHost(options);
  const readReal = host.getSourceFile.bind(host);
  host.getSourceFile = (name, settings) => {
    const text = all.get(name);
    if (text !== undefined) return ts.createSourceFile(name, text, settings, true);
    if (!libraries.has(name)) libraries.set(name, readReal(name, settings));
    return libraries.get(name);
  };
  host.fileExists = (name) => all.has(name) || (!name.startsWith(virtualFolder) && existsSync(name));
  host.readFile = (name) => all.get(name) ?? ts.sys.readFile(name);
  host.directoryExists = () => true;
  host.getCurrentDirectory = () => virtualFolder;
  const roots = [...all.keys()].filter((name) => name.endsWith(".ts"));
  return ts.createProgram(roots, options, host);
}

export interface Complaint {
  readonly file: string;
  readonly line: number;
  readonly message: string;
}

/** Everything the compiler has to say. */
export function compilerComplaints(program: ts.Program): Complaint[] {
  return ts.getPreEmitDiagnostics(program).map((diagnostic) => {
    const { file, start = 0 } = diagnostic;
    const line = file ? file.getLineAndCharacterOfPosition(start).line + 1 : 0;
    const message = ts.flattenDiagnosticMessageText(diagnostic.messageText, "\n");
    return { file: file?.fileName.slice(virtualFolder.length + 1) ?? "", line, message };
  });
}

/** Everything the strict typed rules have to say about some files of a program; comments cannot switch a rule off. */
export function lintComplaints(program: ts.Program, files: ReadonlyMap<string, string>): Complaint[] {
  const linter = new Linter({ cwd: virtualFolder });
  const config = [
    ...tseslint.configs.strictTypeChecked,
    ...tseslint.configs.stylisticTypeChecked,
    {
      files: ["**/*.ts"],
      languageOptions: { parserOptions: { programs: [program], project: null, projectService: false } },
      linterOptions: { noInlineConfig: true, reportUnusedDisableDirectives: "off" },
    },
  ];
  return [...files].flatMap(([path, text]) =>
    linter.verify(text, config as never, { filename: `${virtualFolder}/${path}` }).map((message) => ({
      file: path,
      line: message.line,
      message: `${message.ruleId ?? "parser"}: ${message.message}`,
    })),
  );
}
