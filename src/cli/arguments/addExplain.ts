import type { CommandLine } from "./commandLine.js";

/** Adds `rhema explain` to the command line. */
export function addExplain(line: CommandLine): void {
  line.program
    .command("explain [code]")
    .description("explain a problem or change code, with an example and a fix")
    .action(async (code: string | undefined) => {
      const { explainCommand } = await import("../commands/explain.js");
      await line.run((terminal) => Promise.resolve(explainCommand(terminal, code)));
    });
}
