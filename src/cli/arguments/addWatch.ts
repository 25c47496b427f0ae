import type { CommandLine } from "./commandLine.js";

/** Adds `rhema watch` to the command line. */
export function addWatch(line: CommandLine): void {
  line.program
    .command("watch [sdk...]")
    .usage("[options] [sdk...] [-- command...]")
    .description("regenerate on every save of a contract, query or the configuration; also runs a command after --")
    .option("--partial", "leave out invalid query documents instead of not writing the SDK")
    .option("--play", "also run the stand-in server")
    .option("--port <number>", "port of the stand-in server", "4020")
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
