import type { ValidateFunction } from "ajv";
import type { Language } from "../../core/languages/language.js";
import { FileHashes, MadeHashes } from "../files/fileHashes.js";
import type { LanguageTools, WorkspaceLanguage } from "../languages/languageTools.js";
import type { ModuleImporter } from "../files/moduleImporter.js";
import { runtimeSources } from "../generate/runtimeSources.js";
import { hashOf } from "../files/textFile.js";
import { UsesBeside } from "../uses/usesBeside.js";

/** A language that is in use. */
export interface LoadedLanguage {
  readonly language: Language;
  readonly tools: LanguageTools;
}

/** The hand-written sources of a language's runtime. */
export interface RuntimeSources {
  /** By path inside the runtime's folder. */
  readonly files: ReadonlyMap<string, string>;
  /** Changes whenever one of them does. */
  readonly hash: string;
}

/**
 * What one run of a command keeps, so that nothing is loaded, read or hashed twice. It is made by the command and passed
 * down; nothing of it outlives the run.
 */
export class Session {
  readonly files = new FileHashes();
  readonly made = new MadeHashes();
  readonly usesBeside = new UsesBeside();
  private readonly loaded = new Map<string, Promise<LoadedLanguage>>();
  private readonly loadedTools = new Map<string, Promise<LanguageTools>>();
  private readonly runtimes = new Map<string, RuntimeSources>();

  constructor(
    readonly importer: ModuleImporter,
    /** Those that SDKs can be written in. */
    readonly languages: readonly WorkspaceLanguage[],
    /** Holds a configuration against a schema with these languages; the one that ships when absent. */
    readonly validate?: ValidateFunction,
  ) {}

  /** A language with its tools; loaded once. */
  language(id: string): Promise<LoadedLanguage> {
    const known = this.loaded.get(id) ?? this.load(id);
    this.loaded.set(id, known);
    return known;
  }

  /** The tools of a language, without the language: enough to know whether an SDK is what it was. */
  tools(id: string): Promise<LanguageTools> {
    const known = this.loadedTools.get(id) ?? this.listed(id).loadTools();
    this.loadedTools.set(id, known);
    return known;
  }

  /** The sources of a language's runtime. */
  runtime(id: string, { runtimeFolder }: LanguageTools): RuntimeSources {
    const known = this.runtimes.get(id) ?? readRuntime(runtimeFolder);
    this.runtimes.set(id, known);
    return known;
  }

  private async load(id: string): Promise<LoadedLanguage> {
    const [language, tools] = await Promise.all([this.listed(id).load(), this.tools(id)]);
    return { language, tools };
  }

  /** A language by its name, as far as it is known without loading it. */
  listed(id: string): WorkspaceLanguage {
    const found = this.languages.find((each) => each.id === id);
    // The configuration was checked against the same list.
    if (!found) throw new Error(`There is no language ${id}.`);
    return found;
  }
}

function readRuntime(folder: string): RuntimeSources {
  const files = runtimeSources(folder);
  return { files, hash: hashOf(JSON.stringify([...files])) };
}
