import type { ValidateFunction } from "ajv";
import type { Readable, Writable } from "node:stream";
import type { WorkspaceLanguage } from "../../workspace/languages/languageTools.js";
import type { ModuleImporter } from "../../workspace/files/moduleImporter.js";
import type { Whereabouts } from "../../workspace/project/whereabouts.js";

/** A stream that may be a terminal. */
type MaybeTerminal<Stream> = Stream & { readonly isTTY?: boolean };

/** The process that a command runs in, as far as the command knows it. */
export interface Host extends Omit<Whereabouts, "trace" | "secrets" | "session"> {
  readonly input: MaybeTerminal<Readable>;
  readonly output: MaybeTerminal<Writable>;
  readonly errors: MaybeTerminal<Writable>;
  /** Languages beside those of the list, and what checks a configuration that may name them. */
  readonly languages?: { readonly more: readonly WorkspaceLanguage[]; readonly validate: ValidateFunction };
  /** Imports a module by its URL. */
  readonly importer: ModuleImporter;
  /** Resolves when somebody ends the command from outside. */
  readonly interrupted: () => Promise<void>;
  /** Calls back for what is thrown where no command can catch it. */
  readonly onUncaught: (report: (error: unknown) => void) => void;
  /** Ends the process at once. */
  readonly exit: (code: number) => void;
}

/**
 * The process itself.
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
