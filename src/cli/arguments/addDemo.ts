import type { CommandLine } from "./commandLine.js";

/** Adds `rhema demo` to the command line. */
export function addDemo(line: CommandLine): void {
  line.program
    .command("demo")
    .description("run the whole workflow on sample data, in a temporary folder")
    .action(async () => {
      const { demoCommand } = await import("../commands/demo.js");
      await line.run((terminal) => demoCommand(terminal));
    });
}
