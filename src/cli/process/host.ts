import type { ValidateFunction } from "ajv";
import type { Readable, Writable } from "node:stream";
import type { WorkspaceLanguage } from "../../workspace/languages/languageTools.js";
import type { ModuleImporter } from "../../workspace/files/moduleImporter.js";
import type { Whereabouts } from "../../workspace/project/whereabouts.js";

/** A stream that may be a terminal. */
type MaybeTerminal<Stream> = Stream & { readonly isTTY?: boolean };

/** The process of a command, as far as the command knows it. */
export interface Host extends Omit<Whereabouts, "trace" | "secrets" | "session"> {
  readonly input: MaybeTerminal<Readable>;
  readonly output: MaybeTerminal<Writable>;
  readonly errors: MaybeTerminal<Writable>;
  /** Languages besides those of the list, and the validator for configurations that may name them. */
  readonly languages?: { readonly more: readonly WorkspaceLanguage[]; readonly validate: ValidateFunction };
  /** Imports a module by its URL. */
  readonly importer: ModuleImporter;
  /** Resolves when the command is ended from outside. */
  readonly interrupted: () => Promise<void>;
  /** Registers a function for errors that no command can catch. */
  readonly onUncaught: (report: (error: unknown) => void) => void;
  /** Ends the process at once. */
  readonly exit: (code: number) => void;
}

/**
 * Returns the process itself.
 *
 * @param importer imports modules for this program
 */
export function processHost(importer: ModuleImporter): Host {
  return {
    folder: process.cwd(),
    environment: process.env,
    input: process.stdin,
    output: process.stdout,
    errors: process.stderr,
    importer,
    interrupted: () =>
      new Promise((resolve) => {
        for (const signal of ["SIGINT", "SIGTERM"] as const)
          process.once(signal, () => {
            resolve();
          });
      }),
    onUncaught: (report) => process.on("uncaughtException", report),
    exit: (code) => process.exit(code),
  };
}
