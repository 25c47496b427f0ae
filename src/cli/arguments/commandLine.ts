import type { Command } from "commander";
import type { GlobalOptions, Terminal } from "../output/terminal.js";

/** The command line to which commands are added. */
export interface CommandLine {
  readonly program: Command;
  /** The words after `--` in `watch`: a command of the app's own. */
  readonly beside: readonly string[];
  /** Returns the options that all commands have. */
  readonly globals: () => GlobalOptions;
  /** Runs a command and stores its exit code. */
  readonly run: (command: (terminal: Terminal) => Promise<number>) => Promise<void>;
}
