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

/** The sources of a language's runtime. */
export interface RuntimeSources {
  /** By path inside the runtime's folder. */
  readonly files: ReadonlyMap<string, string>;
  /** Changes whenever one of the files does. */
  readonly hash: string;
}

/**
 * The caches of one run of a command, so that nothing is loaded, read or hashed twice. The command creates it and
 * passes it down. It does not outlive the run.
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
    /** The languages of SDKs. */
    readonly languages: readonly WorkspaceLanguage[],
    /** Validates a configuration against a schema with these languages. Default: the one that ships. */
    readonly validate?: ValidateFunction,
  ) {}

  /** Returns a language with its tools, which is loaded once. */
  language(id: string): Promise<LoadedLanguage> {
    const known = this.loaded.get(id) ?? this.load(id);
    this.loaded.set(id, known);
    return known;
  }

  /** Returns the tools of a language without the language: enough to know whether an SDK is up to date. */
  tools(id: string): Promise<LanguageTools> {
    const known = this.loadedTools.get(id) ?? this.listed(id).loadTools();
    this.loadedTools.set(id, known);
    return known;
  }

  /** Returns the sources of a language's runtime. */
  runtime(id: string, { runtimeFolder }: LanguageTools): RuntimeSources {
    const known = this.runtimes.get(id) ?? readRuntime(runtimeFolder);
    this.runtimes.set(id, known);
    return known;
  }

  private async load(id: string): Promise<LoadedLanguage> {
    const [language, tools] = await Promise.all([this.listed(id).load(), this.tools(id)]);
    return { language, tools };
  }

  /** Returns a language by its name, without loading it. */
  listed(id: string): WorkspaceLanguage {
    const found = this.languages.find((each) => each.id === id);
    // The configuration was validated with the same list.
    if (!found) throw new Error(`There is no language ${id}.`);
    return found;
  }
}

function readRuntime(folder: string): RuntimeSources {
  const files = runtimeSources(folder);
  return { files, hash: hashOf(JSON.stringify([...files])) };
}
