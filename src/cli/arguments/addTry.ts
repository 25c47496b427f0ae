import { collected } from "./collected.js";
import type { TryCommandOptions } from "../commands/try.js";
import type { CommandLine } from "./commandLine.js";

type TryFlags = Omit<TryCommandOptions, "call" | "texts">;

/** Adds `rhema try` to the command line. */
export function addTry(line: CommandLine): void {
  line.program
    .command("try <call> [arguments...]")
    .description("perform one call, as name=value, on the stand-in or a real server, and show the data")
    .option("--contract <name>", "the contract, where several have such a call")
    .option("--base-url <url>", "a real server instead of the stand-in")
    .option("--header <text>", 'sent along: "authorization: Bearer ${NAME}"; may be given again', collected, [])
    .option("--override <text>", "how the stand-in answers: status=409, delay=800")
    .option("--seed <number>", "another seed gives other data", "1")
    .option("--code <folder>", "write a small program for the call into a folder instead")
    .option("--yes", "change something on a real server without asking")
    .action(async (call: string, texts: string[], flags: TryFlags) => {
      const { tryCommand } = await import("../commands/try.js");
      await line.run((terminal) => tryCommand(terminal, line.globals(), { call, texts, ...flags }));
    });
}
