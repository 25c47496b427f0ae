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
 * What a language needs files, a compiler or a process for. What a language lacks is left out: then reports say that it
 * cannot be told.
 */
export interface LanguageTools {
  /** The folder with the runtime's sources. */
  readonly runtimeFolder: string;
  /**
   * An SDK's settings with everything settled that depends on the app around it.
   *
   * @param folder the SDK's folder, absolute
   */
  readonly settled: (configured: SdkSettings, root: string, folder: string) => SdkSettings;
  /** Where a project shows that an SDK goes, and what its settings are there; a folder below the sources when absent. */
  readonly place?: (root: string, sdk: string) => PlaceForSdk;
  /** What the app's source uses of SDKs. */
  readonly uses?: UseScanner;
  /** What the app has written by hand that SDKs have too. */
  readonly handWritten?: HandWrittenScanner;
  /** What people run to compile the app, where its files show it: says what compiles where nothing else does. */
  readonly buildCommand?: (root: string) => string | undefined;
  /** What the language's compiler says of the app. */
  readonly proof?: AppProof;
  /** Writes programs that perform one call. */
  readonly writer?: ProgramWriter;
  /** An app of the demo in this language, beside the one that everybody can build. */
  readonly example?: ExampleApp;
  /** Performs calls; one language does it for all. */
  readonly performer?: CallPerformer;
}

/** An app of the demo that needs a toolchain of its own. */
export interface ExampleApp {
  /** Its folder among those of the demo. */
  readonly folder: string;
  readonly title: string;
  /** What builds it and runs it against a server, in its order; or what it lacks. */
  readonly steps: (root: string, address: string) => readonly ExampleStep[] | string;
}

export interface ExampleStep {
  readonly title: string;
  readonly command: string;
  readonly args: readonly string[];
  /** How people would write it. */
  readonly shown: string;
  /** What it prints is shown only when it fails. */
  readonly isQuiet?: boolean;
}

/** A place for an SDK in a project. */
export interface PlaceForSdk {
  /** The SDK's folder, below the project's. */
  readonly into: string;
  readonly settings: Readonly<Record<string, string>>;
}

/** One contract's part of an SDK that is written, or would be. */
export interface SdkPart {
  readonly sdk: string;
  readonly contract: string;
  /** Absolute path of the part's folder. */
  readonly folder: string;
  /** What makes a connection. */
  readonly connect: string;
}

/** Files in memory that stand for those on disk. */
export interface MadeFiles {
  /** Texts by absolute path. */
  readonly texts: ReadonlyMap<string, string>;
  /** Folders of which nothing but those texts is there. */
  readonly replaced: readonly string[];
}

/** A name that source imports from an SDK. */
export interface ImportedName {
  readonly document: string;
  readonly name: string;
  readonly offset: number;
}

export interface UseScanner {
  /** Whether the app has any source in the language. */
  readonly hasSources: (project: Project) => boolean;
  /** Whether a part of an SDK is written. */
  readonly isWritten: (part: SdkPart) => boolean;
  /**
   * Where the app's source depends on parts of SDKs, by the knowledge of the language's compiler.
   *
   * @param made what stands for files that are written, or that are not
   */
  readonly find: (project: Project, parts: readonly SdkPart[], made?: MadeFiles) => Promise<SourceUse[]>;
  /** Names that the app's source imports from a folder. */
  readonly importsFrom: (project: Project, folder: string) => ImportedName[];
}

export interface HandWrittenScanner {
  /** The app's own source files. */
  readonly sources: (project: Project) => readonly SourceText[];
  /** Requests to operations, and types of what they answer. SDKs that are not written have no types to compare with. */
  readonly find: (
    project: Project,
    parts: readonly SdkPart[],
    operations: readonly RequestedOperation[],
  ) => Promise<HandWritten[]>;
}

export interface AppProof {
  /** How people run the compiler on an app, and what Node runs for it in the app's folder. */
  readonly command: { readonly shown: string; readonly args: () => readonly string[] };
  /** Compiles an app twice: with the SDKs as they are written, and with others in their place. */
  readonly compare: (
    project: Project,
    made: MadeFiles,
    how?: ComparingApps,
  ) => Promise<{ before: CompileError[]; fresh: CompileError[] }>;
  /** Compiles in memory what depends on SDKs that are made anew; fast enough to be done without being asked. */
  readonly inMemory: (project: Project, made: MadeFiles, old?: MadeFiles) => Promise<CompiledInMemory>;
}

/** What a compiler says of an app in memory. */
export interface CompiledInMemory {
  /** What is refused with the new SDKs, and was not with the old ones. */
  readonly fresh: readonly CompileError[];
  /** Files of the app that depend on the SDKs, as people know them: those that the compiler checks, and others. */
  readonly checked: ReadonlySet<string>;
  readonly unchecked: ReadonlySet<string>;
  /** Whether the type of what stands at a place is still known: an error elsewhere can hide what would break there. */
  readonly knows: (place: Place) => boolean;
}

export interface ComparingApps {
  /** What stands for the SDKs as they are, where it is not what is written. */
  readonly old?: MadeFiles | undefined;
  /** The command that the configuration has for it. */
  readonly run?: string | undefined;
}

export interface CallPerformer {
  /** Performs a call with the very code that an SDK has for it. */
  readonly perform: (call: FoundCall, how: Performing) => Promise<Performed>;
}

/** A program that was written to perform a call. */
export interface WrittenProgram {
  /** Path of the program, below the project. */
  readonly program: string;
  /** What runs it. */
  readonly run: string;
  readonly written: readonly string[];
  /** Files that were there and stay as they are. */
  readonly kept: readonly string[];
}

export interface ProgramWriter {
  /**
   * Writes a small runnable program that performs a call. Only files that are missing are written.
   *
   * @param folder below the project
   * @param given the arguments of the call, as JSON has them
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
  /** Makes the tools; what they remember lasts as long as they do. */
  readonly loadTools: () => Promise<LanguageTools>;
}
