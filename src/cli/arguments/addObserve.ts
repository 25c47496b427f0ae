import { Option } from "commander";
import type { ObserveCommandOptions } from "../commands/observe.js";
import { observeForms } from "../output/observeForms.js";
import { collected } from "./collected.js";
import type { CommandLine } from "./commandLine.js";

/** Adds `rhema observe` to the command line. */
export function addObserve(line: CommandLine): void {
  line.program
    .command("observe [url]")
    .description("check the traffic between app and backend, or recorded traffic, against the contract")
    .option("--contract <name>", "check this contract only; repeatable", collected, [])
    .option("--har <file>", "check recorded traffic instead; repeatable", collected, [])
    .option("--port <number>", "port to listen on", "4021")
    .option("--host <address>", "address to listen on", "127.0.0.1")
    .option("--for <seconds>", "stop and report after this time")
    .addOption(new Option("--report <form>", "format of the report").choices(observeForms).default("text"))
    .action(async (url: string | undefined, flags: Omit<ObserveCommandOptions, "url">) => {
      const { observeCommand } = await import("../commands/observe.js");
      const options = { ...flags, url, for: flags.for };
      await line.run((terminal) => observeCommand(terminal, line.globals(), options));
    });
}
