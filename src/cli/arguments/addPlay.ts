import { collected } from "./collected.js";
import type { CommandLine } from "./commandLine.js";

interface PlayFlags {
  readonly port: string;
  readonly host: string;
  readonly seed: string;
  readonly override: readonly string[];
  readonly auth: boolean;
}

/** Adds `rhema play` to the command line. */
export function addPlay(line: CommandLine): void {
  line.program
    .command("play [contract...]")
    .description("run a stand-in server for the contracts")
    .option("--port <number>", "port to listen on", "4020")
    .option("--host <address>", "address to listen on", "127.0.0.1")
    .option("--seed <number>", "seed for sample data", "1")
    .option("--override <text>", 'override responses: "reserveBerth: status=409, delay=800"; repeatable', collected, [])
    .option("--no-auth", "require no credentials")
    .action(async (contracts: string[], { override, ...flags }: PlayFlags) => {
      const { playCommand } = await import("../commands/play.js");
      const options = { contracts, overrides: override, ...flags };
      await line.run((terminal) => playCommand(terminal, line.globals(), options));
    });
}
