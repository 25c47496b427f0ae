import { Option } from "commander";
import type { CommandLine } from "./commandLine.js";

interface OutlineFlags {
  readonly find?: string;
  readonly unused?: boolean;
  readonly about?: string;
  readonly replaceable?: boolean;
}

/** Adds `rhema outline` to the command line. */
export function addOutline(line: CommandLine): void {
  line.program
    .command("outline [contract...]")
    .description("show what a contract offers, and which of it this project uses")
    .option("--find <text>", "only entries that contain this text")
    .option("--unused", "only entries that this project does not use")
    .option("--about <name>", "one operation or type, with everything it reaches")
    .addOption(
      new Option("--replaceable", "hand-written requests, types and queries that the SDK can replace").conflicts([
        "find",
        "unused",
        "about",
      ]),
    )
    .action(async (contracts: string[], flags: OutlineFlags) => {
      if (flags.replaceable === true) {
        const { replaceableCommand } = await import("../commands/replaceable.js");
        await line.run((terminal) => replaceableCommand(terminal, line.globals(), contracts));
        return;
      }
      const { outlineCommand } = await import("../commands/outline.js");
      const options = { contracts, find: flags.find, unused: flags.unused === true, about: flags.about };
      await line.run((terminal) => outlineCommand(terminal, line.globals(), options));
    });
}
