import { Option } from "commander";
import type { CommandLine } from "./commandLine.js";

/** Adds `rhema completion` to the command line. */
export function addCompletion(line: CommandLine): void {
  line.program
    .command("completion [shell]")
    .description("print what bash, zsh or fish needs to complete commands, options and names")
    .addOption(new Option("--at <number>", "which of the words after -- is completed").hideHelp())
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
