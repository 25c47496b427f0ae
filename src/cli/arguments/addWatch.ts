import type { CommandLine } from "./commandLine.js";

/** Adds `rhema watch` to the command line. */
export function addWatch(line: CommandLine): void {
  line.program
    .command("watch [sdk...]")
    .usage("[options] [sdk...] [-- command...]")
    .description(
      "regenerate on every save of a contract, a query document or the configuration; beside a command of the app's own, where one stands after --",
    )
    .option("--partial", "write an SDK without its bad query documents instead of holding it back")
    .option("--play", "play the contracts in the same process")
    .option("--port <number>", "port to play on", "4020")
    .action(async (sdks: string[], flags: { partial?: boolean; play?: boolean; port: string }) => {
      const { watchCommand } = await import("../commands/watch.js");
      const options = {
        sdks,
        partial: flags.partial === true,
        playOn: flags.play === true ? flags.port : undefined,
        beside: line.beside,
      };
      await line.run((terminal) => watchCommand(terminal, line.globals(), options));
    });
}
