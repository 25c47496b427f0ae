import type { CommandLine } from "./commandLine.js";

/** Adds `rhema draft` to the command line. */
export function addDraft(line: CommandLine): void {
  line.program
    .command("draft <contract> [field...]")
    .description("write query documents for the root fields of a schema, without overwriting files")
    .option("--depth <number>", "levels of objects to select", "3")
    .option("--into <folder>", "output folder (default: the folder of the contract's queries)")
    .action(async (contract: string, fields: string[], flags: { depth: string; into?: string }) => {
      const { draftCommand } = await import("../commands/draft.js");
      const options = { contract, fields, depth: flags.depth, into: flags.into };
      await line.run((terminal) => draftCommand(terminal, line.globals(), options));
    });
}
