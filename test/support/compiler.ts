import { Linter } from "eslint";
import ts from "typescript";
import tseslint from "typescript-eslint";

/** One error of the compiler or the linter. */
export interface Complaint {
  readonly file: string;
  readonly line: number;
  /** The compiler's number, such as "TS2339", or the name of a rule. */
  readonly code: string;
  readonly message: string;
}

/** Declarations of the platform and of packages, parsed and bound once for all programs with the same options. */
const declarations = new Map<string, ts.SourceFile | undefined>();

/**
 * A host that caches declarations that no test writes.
 *
 * @param own returns whether a path is a file of the test
 */
export function sharedHost(options: ts.CompilerOptions, own: (path: string) => boolean): ts.CompilerHost {
  const host = ts.createCompilerHost(options, true);
  const read = host.getSourceFile.bind(host);
  const { target, module, moduleResolution, moduleDetection, jsx, isolatedModules, allowJs } = options;
  const kept = JSON.stringify([target, module, moduleResolution, moduleDetection, jsx, isolatedModules, allowJs]);
  host.getSourceFile = (name, settings) => {
    if (own(name) || !name.includes("/node_modules/")) return read(name, settings);
    const key = `${kept} ${typeof settings === "object" ? String(settings.impliedNodeFormat) : ""} ${name}`;
    if (!declarations.has(key)) declarations.set(key, read(name, settings));
    return declarations.get(key);
  };
  return host;
}

/** Creates a program of a folder like `tsc -p`, with settings as in a tsconfig. */
export function folderProgram(folder: string, config: object): ts.Program {
  const parsed = ts.parseJsonConfigFileContent(config, ts.sys, folder);
  const { options, fileNames, errors } = parsed;
  const host = sharedHost(options, (path) => path.startsWith(`${folder}/`) && !path.includes("/node_modules/"));
  host.getCurrentDirectory = () => folder;
  const configFileParsingDiagnostics = errors.filter(({ code }) => code !== nothingIncluded);
  return ts.createProgram({ rootNames: fileNames, options, host, configFileParsingDiagnostics });
}

const nothingIncluded = 18003;

/** Returns all errors of the compiler, with file names relative to a folder. */
export function compilerComplaints(program: ts.Program, folder: string): Complaint[] {
  return ts.getPreEmitDiagnostics(program).map((diagnostic) => {
    const { file, start = 0 } = diagnostic;
    const line = file ? file.getLineAndCharacterOfPosition(start).line + 1 : 0;
    const message = ts.flattenDiagnosticMessageText(diagnostic.messageText, "\n");
    const code = `TS${String(diagnostic.code)}`;
    return { file: file?.fileName.slice(folder.length + 1) ?? "", line, code, message };
  });
}

/** Returns all errors of the strict typed rules in some files of a program. Comments cannot switch a rule off. */
export function lintComplaints(program: ts.Program, folder: string, files: ReadonlyMap<string, string>): Complaint[] {
  const linter = new Linter({ cwd: folder });
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
    linter.verify(text, config as never, { filename: `${folder}/${path}` }).map((message) => ({
      file: path,
      line: message.line,
      code: message.ruleId ?? "parser",
      message: message.message,
    })),
  );
}

/** Returns an error on one line. */
export function complaintLine({ file, line, code, message }: Complaint): string {
  return `${file}:${String(line)} ${code}: ${message}`;
}
