import { existsSync } from "node:fs";
import { dirname, join, resolve } from "node:path";
import ts from "typescript";
import { installedTypescript } from "./appChecker.js";
import { displayPath, isInside, type Project } from "../../project/project.js";
import { readText } from "../../files/textFile.js";
import type { ComponentModule } from "./markup/componentModule.js";
import { componentModule } from "./markup/componentModules.js";
import { siteImports } from "./siteImports.js";
import { markupEndings } from "./markup/markupEndings.js";

/** The app's own sources as a program, with the SDK on disk or another one. */
export interface AppProgram {
  readonly program: ts.Program;
  /** The app's own files, by the compiler's names for them. */
  readonly documents: ReadonlyMap<string, AppDocument>;
}

/** A file of the app. */
export interface AppDocument {
  /** Its path for people. */
  readonly document: string;
  /** The text for the compiler, if the file contains markup. */
  readonly module?: ComponentModule;
}

export interface AppFiles {
  /** The absolute paths of the app's sources, script files and components alike. */
  readonly sources: readonly string[];
  /** Texts that replace files, by absolute path. */
  readonly texts?: ReadonlyMap<string, string>;
  /** Folders that contain only those texts. */
  readonly replaced?: readonly string[];
}

/** Compiles apps. Each file is parsed once as long as its text stays the same. */
export class AppCompiler {
  private readonly parsed: ParsedFiles = new Map();
  private readonly modules = new Map<string, { readonly text: string; readonly module: ComponentModule }>();

  /** @param checksScripts whether plain scripts are checked too */
  constructor(private readonly checksScripts = false) {}

  /**
   * Creates a program of an app with the options of its own tsconfig.json, with references to other configurations. It
   * also includes plain JavaScript, components with their templates, and files in no configuration.
   *
   * @param previous the last program of the same app, to be reused
   */
  compile(project: Project, files: AppFiles, previous?: ts.Program): AppProgram {
    const options: ts.CompilerOptions = {
      ...withNewDefaults(compilerOptions(project.root), project.root),
      allowJs: true,
      checkJs: this.checksScripts,
      noEmit: true,
      skipLibCheck: true,
      composite: false,
      incremental: false,
      allowImportingTsExtensions: true,
      noUnusedLocals: false,
      noUnusedParameters: false,
    };
    delete options.rootDir;
    delete options.tsBuildInfoFile;
    const documents = new Map<string, AppDocument>();
    const modules = new Map<string, string>();
    for (const path of files.sources) {
      const module = this.moduleOf(path);
      const virtual = module ? `${path}${module.ending}` : path;
      documents.set(virtual, { document: displayPath(project, path), ...(module ? { module } : {}) });
      if (module) modules.set(virtual, module.mapped.text);
    }
    const host = hostOf(options, files, { modules, parsed: this.parsed });
    if (this.checksScripts) host.resolveModuleNameLiterals = siteImports(project.root, options, host);
    const program = ts.createProgram([...documents.keys()], options, host, previous);
    project.trace(() => `parsed the app: ${String(documents.size)} sources of its own`);
    return { program, documents };
  }

  private moduleOf(path: string): ComponentModule | undefined {
    if (!markupEndings.some((ending) => path.endsWith(ending))) return undefined;
    const text = readText(path);
    const known = this.modules.get(path);
    if (known?.text === text) return known.module;
    const module = componentModule({ path, text });
    if (module) this.modules.set(path, { text, module });
    return module;
  }
}

/** Files by their name and the options with which they were parsed. */
type ParsedFiles = Map<string, ts.SourceFile>;

function hostOf(
  options: ts.CompilerOptions,
  files: AppFiles,
  { modules, parsed }: { readonly modules: ReadonlyMap<string, string>; readonly parsed: ParsedFiles },
): ts.CompilerHost {
  const host = ts.createCompilerHost(options);
  const own = (name: string): string | undefined => modules.get(name) ?? files.texts?.get(name);
  const folders = foldersOf(files.texts?.keys() ?? []);
  const isReplaced = (name: string): boolean =>
    (files.replaced ?? []).some((folder) => folder === name || isInside(folder, name));
  return {
    ...host,
    jsDocParsingMode: ts.JSDocParsingMode.ParseForTypeInfo,
    fileExists: (name) => own(name) !== undefined || (!isReplaced(name) && host.fileExists(name)),
    readFile: (name) => own(name) ?? (isReplaced(name) ? undefined : host.readFile(name)),
    directoryExists: (name) => folders.has(name) || isReplaced(name) || existsSync(name),
    getSourceFile: (name, settings) => {
      const text = own(name);
      if (text !== undefined) return ts.createSourceFile(name, text, settings);
      return isReplaced(name) ? undefined : parsedFile({ name, text: host.readFile(name), settings }, parsed);
    },
  };
}

/** The folders of files, and those around them. */
function foldersOf(paths: Iterable<string>): Set<string> {
  const found = new Set<string>();
  for (const path of paths)
    for (let folder = dirname(path); !found.has(folder) && folder !== dirname(folder); folder = dirname(folder))
      found.add(folder);
  return found;
}

interface ReadFile {
  readonly name: string;
  readonly text: string | undefined;
  readonly settings: ts.ScriptTarget | ts.CreateSourceFileOptions;
}

/** A file on disk, which may have changed since it was parsed. */
function parsedFile({ name, text, settings }: ReadFile, parsed: ParsedFiles): ts.SourceFile | undefined {
  if (text === undefined) return undefined;
  const key = `${name} ${JSON.stringify(settings)}`;
  const known = parsed.get(key);
  if (known?.text === text) return known;
  const file = ts.createSourceFile(name, text, settings);
  parsed.set(key, file);
  return file;
}

/** Options with the defaults of TypeScript 6 and newer filled in. */
function withNewDefaults(options: ts.CompilerOptions, root: string): ts.CompilerOptions {
  const [major = "5"] = (installedTypescript(root) ?? "").split(".");
  if (Number(major) < firstStrict) return options;
  const modules =
    options.module === undefined
      ? { module: ts.ModuleKind.ESNext, moduleResolution: ts.ModuleResolutionKind.Bundler }
      : {};
  return { strict: true, esModuleInterop: true, target: ts.ScriptTarget.ESNext, ...modules, ...options };
}

const firstStrict = 6;

/** The options of the configuration with most of the app's files: the first one may be only for its tools. */
function compilerOptions(root: string): ts.CompilerOptions {
  const name = ["tsconfig.json", "jsconfig.json"].find((each) => existsSync(join(root, each)));
  const found = name === undefined ? [] : configurationsFrom(join(root, name), new Set());
  const [most] = [...found].sort((a, b) => b.files - a.files);
  return (
    most?.options ?? {
      strict: true,
      noImplicitAny: false,
      target: ts.ScriptTarget.ES2022,
      module: ts.ModuleKind.ESNext,
      moduleResolution: ts.ModuleResolutionKind.Bundler,
      jsx: ts.JsxEmit.Preserve,
    }
  );
}

interface FoundConfiguration {
  readonly options: ts.CompilerOptions;
  /** The number of its files. */
  readonly files: number;
}

/** Components contain code that the compiler does not know on its own. */
const markup = markupEndings.map((ending): ts.FileExtensionInfo => ({
  extension: ending,
  isMixedContent: true,
  scriptKind: ts.ScriptKind.Deferred,
}));

/** A configuration, and all configurations that it refers to. */
function configurationsFrom(path: string, seen: Set<string>): FoundConfiguration[] {
  if (seen.has(path) || !existsSync(path)) return [];
  seen.add(path);
  const { config } = ts.readConfigFile(path, (name) => ts.sys.readFile(name)) as {
    config?: { references?: { path: string }[] };
  };
  if (!config) return [];
  const read = ts.parseJsonConfigFileContent(config, ts.sys, dirname(path), undefined, path, undefined, markup);
  const others = (config.references ?? []).flatMap((reference) => {
    const target = resolve(dirname(path), reference.path);
    return configurationsFrom(target.endsWith(".json") ? target : join(target, "tsconfig.json"), seen);
  });
  return [{ options: read.options, files: read.fileNames.length }, ...others];
}
