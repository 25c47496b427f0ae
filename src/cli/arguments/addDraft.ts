import type { CommandLine } from "./commandLine.js";

/** Adds `rhema draft` to the command line. */
export function addDraft(line: CommandLine): void {
  line.program
    .command("draft <contract> [field...]")
    .description("write query documents for the root fields of a schema, and never over a file")
    .option("--depth <number>", "how many levels of objects are selected", "3")
    .option("--into <folder>", "where to write them (default: where the contract's queries are)")
    .action(async (contract: string, fields: string[], flags: { depth: string; into?: string }) => {
      const { draftCommand } = await import("../commands/draft.js");
      const options = { contract, fields, depth: flags.depth, into: flags.into };
      await line.run((terminal) => draftCommand(terminal, line.globals(), options));
    });
}
