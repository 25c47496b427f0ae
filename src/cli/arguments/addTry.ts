import { collected } from "./collected.js";
import type { TryCommandOptions } from "../commands/try.js";
import type { CommandLine } from "./commandLine.js";

type TryFlags = Omit<TryCommandOptions, "call" | "texts">;

/** Adds `rhema try` to the command line. */
export function addTry(line: CommandLine): void {
  line.program
    .command("try <call> [arguments...]")
    .description("make one call with name=value arguments, on the stand-in server or a real one")
    .option("--contract <name>", "the contract, if several have the call")
    .option("--base-url <url>", "a real server instead of the stand-in server")
    .option("--header <text>", 'header: "authorization: Bearer ${NAME}"; repeatable', collected, [])
    .option("--override <text>", "override the response: status=409, delay=800")
    .option("--seed <number>", "seed for sample data", "1")
    .option("--code <folder>", "write a small program for the call to a folder instead")
    .option("--yes", "allow changes on a real server without asking")
    .action(async (call: string, texts: string[], flags: TryFlags) => {
      const { tryCommand } = await import("../commands/try.js");
      await line.run((terminal) => tryCommand(terminal, line.globals(), { call, texts, ...flags }));
    });
}
