import type { CommandLine } from "./commandLine.js";

/** Adds `rhema explain` to the command line. */
export function addExplain(line: CommandLine): void {
  line.program
    .command("explain [code]")
    .description("what a problem or change code means, with an example, and how to fix it")
    .action(async (code: string | undefined) => {
      const { explainCommand } = await import("../commands/explain.js");
      await line.run((terminal) => Promise.resolve(explainCommand(terminal, code)));
    });
}
