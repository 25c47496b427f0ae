import type { CommandLine } from "./commandLine.js";

/** Adds `rhema pull` to the command line. */
export function addPull(line: CommandLine): void {
  line.program
    .command("pull [contract...]")
    .description("update the copies of contracts from URLs, GraphQL endpoints and commands")
    .option("--check", "only check whether the origin changed (exit 1), save nothing")
    .action(async (contracts: string[], flags: { check?: boolean }) => {
      const { pullCommand } = await import("../commands/pull.js");
      await line.run((terminal) => pullCommand(terminal, line.globals(), { contracts, check: flags.check === true }));
    });
}
