import type { CommandLine } from "./commandLine.js";

/** Adds `rhema pull` to the command line. */
export function addPull(line: CommandLine): void {
  line.program
    .command("pull [contract...]")
    .description("refresh the copies of contracts that come from a URL, a GraphQL endpoint or a command")
    .option("--check", "only say whether the origin moved (exit 1), and save nothing")
    .action(async (contracts: string[], flags: { check?: boolean }) => {
      const { pullCommand } = await import("../commands/pull.js");
      await line.run((terminal) => pullCommand(terminal, line.globals(), { contracts, check: flags.check === true }));
    });
}
