import { Option } from "commander";
import type { CommandLine } from "./commandLine.js";

/** Adds `rhema completion` to the command line. */
export function addCompletion(line: CommandLine): void {
  line.program
    .command("completion [shell]")
    .description("print the completion script for bash, zsh or fish")
    .addOption(new Option("--at <number>", "index of the word after -- to complete").hideHelp())
    .argument("[words...]")
    .usage("[options] [shell]")
    .action(async (shell: string | undefined, words: string[], flags: { at?: string }) => {
      const { completedCommand, completionCommand } = await import("../commands/completion.js");
      const asked = { words: shell === undefined ? [] : [shell, ...words], at: Number(flags.at) };
      await line.run((terminal) =>
        flags.at === undefined
          ? Promise.resolve(completionCommand(terminal, shell))
          : completedCommand(terminal, line.globals(), { program: line.program, line: asked }),
      );
    });
}
