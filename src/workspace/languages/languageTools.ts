import type { HandWritten, RequestedOperation } from "../../core/outline/handWritten.js";
import type { Place, SourceText } from "../../core/problem/place.js";
import type { ListedLanguage } from "../../core/languages/language.js";
import type { CompileError } from "../../core/use/compileError.js";
import type { SdkSettings } from "../../core/languages/settings.js";
import type { SourceUse } from "../../core/use/sourceUse.js";
import type { Project } from "../project/project.js";
import type { FoundCall } from "../try/foundCall.js";
import type { Performed, Performing } from "../try/performing.js";

/**
 * The parts of a language that need files, a compiler or a process. If one is missing, reports say that its result is
 * unknown.
 */
export interface LanguageTools {
  /** The folder with the runtime's sources. */
  readonly runtimeFolder: string;
  /**
   * Returns an SDK's settings with all values that depend on the app filled in.
   *
   * @param folder the SDK's folder, absolute
   */
  readonly settled: (configured: SdkSettings, root: string, folder: string) => SdkSettings;
  /** Returns the place for an SDK in a project, and its settings there. Default: a folder inside the sources. */
  readonly place?: (root: string, sdk: string) => PlaceForSdk;
  /** Finds the uses of SDKs in the app's source. */
  readonly uses?: UseScanner;
  /** Finds hand-written code of the app that SDKs have too. */
  readonly handWritten?: HandWrittenScanner;
  /**
   * Returns the command with which people compile the app, if its files show it. It compiles the app if nothing else
   * does.
   */
  readonly buildCommand?: (root: string) => string | undefined;
  /** Runs the language's compiler on the app. */
  readonly proof?: AppProof;
  /** Writes programs that make one call. */
  readonly writer?: ProgramWriter;
  /** An app of the demo in this language, next to the one that everybody can build. */
  readonly example?: ExampleApp;
  /** Makes calls. One language does it for all. */
  readonly performer?: CallPerformer;
}

/** An app of the demo that needs a toolchain of its own. */
export interface ExampleApp {
  /** Its folder in the demo. */
  readonly folder: string;
  readonly title: string;
  /** Returns the steps that build it and run it with a server, or what is missing. */
  readonly steps: (root: string, address: string) => readonly ExampleStep[] | string;
}

export interface ExampleStep {
  readonly title: string;
  readonly command: string;
  readonly args: readonly string[];
  /** The command as people would write it. */
  readonly shown: string;
  /** Whether its output is shown only if it fails. */
  readonly isQuiet?: boolean;
}

/** The place for an SDK in a project. */
export interface PlaceForSdk {
  /** The SDK's folder, relative to the project. */
  readonly into: string;
  readonly settings: Readonly<Record<string, string>>;
}

/** One contract's part of an SDK, written or not. */
export interface SdkPart {
  readonly sdk: string;
  readonly contract: string;
  /** The absolute path of the part's folder. */
  readonly folder: string;
  /** The function that creates a connection. */
  readonly connect: string;
}

/** Files in memory that replace those on disk. */
export interface MadeFiles {
  /** Texts by absolute path. */
  readonly texts: ReadonlyMap<string, string>;
  /** Folders that contain only those texts. */
  readonly replaced: readonly string[];
}

/** A name that source imports from an SDK. */
export interface ImportedName {
  readonly document: string;
  readonly name: string;
  readonly offset: number;
}

export interface UseScanner {
  /** Returns whether the app has source in the language. */
  readonly hasSources: (project: Project) => boolean;
  /** Returns whether a part of an SDK is written. */
  readonly isWritten: (part: SdkPart) => boolean;
  /**
   * Returns the places where the app's source uses parts of SDKs, from the language's compiler.
   *
   * @param made files that replace those on disk
   */
  readonly find: (project: Project, parts: readonly SdkPart[], made?: MadeFiles) => Promise<SourceUse[]>;
  /** Returns the names that the app's source imports from a folder. */
  readonly importsFrom: (project: Project, folder: string) => ImportedName[];
}

export interface HandWrittenScanner {
  /** Returns the app's own source files. */
  readonly sources: (project: Project) => readonly SourceText[];
  /**
   * Finds requests to operations, and types of their responses. SDKs that are not written have no types to compare
   * with.
   */
  readonly find: (
    project: Project,
    parts: readonly SdkPart[],
    operations: readonly RequestedOperation[],
  ) => Promise<HandWritten[]>;
}

export interface AppProof {
  /** How people run the compiler on an app, and the arguments for Node in the app's folder. */
  readonly command: { readonly shown: string; readonly args: () => readonly string[] };
  /** Compiles an app twice: with the SDKs on disk, and with others in their place. */
  readonly compare: (
    project: Project,
    made: MadeFiles,
    how?: ComparingApps,
  ) => Promise<{ before: CompileError[]; fresh: CompileError[] }>;
  /** Compiles in memory the files that use changed SDKs, fast enough to run without `--prove`. */
  readonly inMemory: (project: Project, made: MadeFiles, old?: MadeFiles) => Promise<CompiledInMemory>;
}

/** The result of compiling an app in memory. */
export interface CompiledInMemory {
  /** Errors with the new SDKs that the old ones do not have. */
  readonly fresh: readonly CompileError[];
  /** The app's files that use the SDKs, by their names for people: those that the compiler checks, and the others. */
  readonly checked: ReadonlySet<string>;
  readonly unchecked: ReadonlySet<string>;
  /** Returns whether the type at a place is still known: an error elsewhere can hide what would break there. */
  readonly knows: (place: Place) => boolean;
}

export interface ComparingApps {
  /** The files of the current SDKs, if they are not the ones on disk. */
  readonly old?: MadeFiles | undefined;
  /** The command in the configuration. */
  readonly run?: string | undefined;
}

export interface CallPerformer {
  /** Makes a call with the SDK's own code. */
  readonly perform: (call: FoundCall, how: Performing) => Promise<Performed>;
}

/** A program for one call. */
export interface WrittenProgram {
  /** The path of the program, relative to the project. */
  readonly program: string;
  /** The command that runs it. */
  readonly run: string;
  readonly written: readonly string[];
  /** Existing files, which stay as they are. */
  readonly kept: readonly string[];
}

export interface ProgramWriter {
  /**
   * Writes a small program that makes a call. Only missing files are written.
   *
   * @param folder relative to the project
   * @param given the arguments of the call, as in JSON
   */
  readonly write: (
    project: Project,
    folder: string,
    call: FoundCall,
    given: { readonly baseUrl: string; readonly values: Readonly<Record<string, unknown>> },
  ) => Promise<WrittenProgram>;
}

/** A language with its tools, each loaded when it is used. */
export interface WorkspaceLanguage extends ListedLanguage {
  /** Creates the tools. Their caches live as long as they do. */
  readonly loadTools: () => Promise<LanguageTools>;
}
