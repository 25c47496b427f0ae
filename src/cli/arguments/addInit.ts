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
    .description("find contracts, test them and write rhema.yaml; asks for what it cannot find")
    .option("--from <source>", "a file, folder, URL or GraphQL endpoint, or name=source; repeatable", collected, [])
    .option("--run <command>", "a command that prints a contract, or name=command; repeatable", collected, [])
    .option("--header <text>", 'header for URLs: "authorization: Bearer ${NAME}"; repeatable', collected, [])
    .option("--sdk <name>", "name of the SDK")
    .option("--into <folder>", "output folder of the SDK")
    .addOption(new Option("--language <word>", "language of the SDK").choices(languages.map(({ id }) => id)))
    .option("--no-scripts", "do not change package.json")
    .option("--yes", "use what is found, without questions")
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
