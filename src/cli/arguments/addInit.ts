import { Option } from "commander";
import { languages } from "../../core/languages/index.js";
import { collected } from "./collected.js";
import type { CommandLine } from "./commandLine.js";

interface InitFlags {
  readonly from: readonly string[];
  readonly run: readonly string[];
  readonly header: readonly string[];
  readonly sdk?: string;
  readonly into?: string;
  readonly language?: string;
  readonly scripts: boolean;
  readonly yes?: boolean;
}

/** Adds `rhema init` to the command line. */
export function addInit(line: CommandLine): void {
  line.program
    .command("init [source...]")
    .description("find contracts, try them, and write rhema.yaml; asks what is left to ask")
    .option(
      "--from <source>",
      "a file, folder, URL or GraphQL endpoint, or name=source; may be given again",
      collected,
      [],
    )
    .option("--run <command>", "a command that prints a contract, or name=command; may be given again", collected, [])
    .option("--header <text>", 'sent to URLs: "authorization: Bearer ${NAME}"; may be given again', collected, [])
    .option("--sdk <name>", "what the SDK is called")
    .option("--into <folder>", "where the SDK is written to")
    .addOption(new Option("--language <word>", "what the SDK is written in").choices(languages.map(({ id }) => id)))
    .option("--no-scripts", "leave package.json as it is")
    .option("--yes", "ask nothing: take what is found")
    .action(async (sources: string[], flags: InitFlags) => {
      const { initCommand } = await import("../commands/init.js");
      const options = {
        ...flags,
        from: [...sources, ...flags.from],
        sdk: flags.sdk,
        into: flags.into,
        language: flags.language,
        yes: flags.yes === true,
      };
      await line.run((terminal) => initCommand(terminal, line.globals(), options));
    });
}
