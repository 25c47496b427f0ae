import { Command, CommanderError, Option } from "commander";
import { languages } from "../core/languages/index.js";
import { hideSecrets } from "../core/text/secrets.js";
import { exitCodes } from "../workspace/project/halt.js";
import { version } from "../workspace/files/packageFolder.js";
import type { SourceUse } from "../core/use/sourceUse.js";
import type { ModuleImporter } from "../workspace/files/moduleImporter.js";
import type { UseTask } from "../workspace/uses/useTask.js";
import { reportForms, type ReportForm } from "./output/reportForms.js";
import type { ObserveCommandOptions } from "./commands/observe.js";
import type { TryCommandOptions } from "./commands/try.js";
import { observeForms } from "./output/observeForms.js";
import { gateOf, gateOptions, mostUsersOption, type GateFlags } from "./gateOptions.js";
import { processHost, type Host } from "./process/host.js";
import { runCommand } from "./runCommand.js";
import type { GlobalOptions, Terminal } from "./output/terminal.js";

export { processHost };

/** Looks for what an app uses of its SDKs, in a thread of its own. */
export async function usesOfTask(task: UseTask, importer: ModuleImporter): Promise<SourceUse[]> {
  return (await import("../workspace/uses/usesOfTask.js")).usesOfTask(task, importer);
}

/**
 * The command line. Each command's own code is loaded when it runs.
 *
 * @param argv the arguments, without the program's name
 * @param host the process it runs in
 * @returns the exit code
 */
export async function runProgram(argv: readonly string[], host: Host): Promise<number> {
  const { own, beside } = withoutBeside(argv);
  let exitCode: number = exitCodes.done;
  const program = new Command("rhema")
    .description("Typed client SDKs from API contracts, and what a changed contract breaks.")
    .version(version, "-V, --version", "print the version")
    .option("--config <file>", "the configuration file (default: rhema.yaml)")
    .option("--json", "print one JSON document on standard output")
    .option("--quiet", "print problems only")
    .option("--no-color", "no colours (also: NO_COLOR)")
    .helpOption("-h, --help", "print help")
    .helpCommand("help [command]", "print help for a command")
    .showHelpAfterError("(rhema --help lists the commands)")
    .exitOverride()
    .configureOutput({
      writeOut: (text) => host.output.write(text),
      // What somebody wrote as an argument may hold a credential.
      writeErr: (text) => host.errors.write(hideSecrets(text)),
    });
  const globals = (): GlobalOptions => program.opts<GlobalOptions>();
  const run = async (command: (terminal: Terminal) => Promise<number>): Promise<void> => {
    exitCode = await runCommand(host, globals(), command);
  };

  program
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
      const { initCommand } = await import("./commands/init.js");
      const options = {
        ...flags,
        from: [...sources, ...flags.from],
        sdk: flags.sdk,
        into: flags.into,
        language: flags.language,
        yes: flags.yes === true,
      };
      await run((terminal) => initCommand(terminal, globals(), options));
    });

  const [generateGate, generateJudge] = gateOptions("off");
  program
    .command("generate [sdk...]")
    .description("read contracts and queries, report, write the SDKs and pin what they were made from")
    .option("--dry-run", "report, and write nothing")
    .option("--partial", "write an SDK without its bad query documents instead of holding it back")
    .option("--fresh", "fetch remote contracts anew instead of using their copies")
    .option("--files", "print what is read and what is written, as JSON for a build tool, and do nothing else")
    .option("--strict", "a part of a contract that was set aside is an error (exit 1)")
    .addOption(generateGate)
    .addOption(generateJudge)
    .option("--force", "replace generated files that were edited by hand; write beside files of yours")
    .action(
      async (
        sdks: string[],
        flags: GateFlags & Partial<Record<"dryRun" | "partial" | "force" | "fresh" | "strict" | "files", boolean>>,
      ) => {
        if (flags.files === true) {
          const { filesCommand } = await import("./commands/files.js");
          await run((terminal) => filesCommand(terminal, globals(), sdks));
          return;
        }
        const { generateCommand } = await import("./commands/generate.js");
        const options = {
          sdks,
          dryRun: flags.dryRun === true,
          partial: flags.partial === true,
          force: flags.force === true,
          gate: gateOf(flags),
          fresh: flags.fresh === true,
          strict: flags.strict === true,
        };
        await run((terminal) => generateCommand(terminal, globals(), options));
      },
    );

  const [checkGate, checkJudge] = gateOptions("breaking");
  program
    .command("check [sdk...]")
    .description(
      "write nothing; fail when an SDK is stale, a query does not fit, or something broke since the guarded revision",
    )
    .addOption(checkGate)
    .addOption(checkJudge)
    .action(async (sdks: string[], flags: GateFlags) => {
      const { checkCommand } = await import("./commands/check.js");
      await run((terminal) => checkCommand(terminal, globals(), sdks, gateOf(flags)));
    });

  const [impactGate, impactJudge] = gateOptions("breaking");
  program
    .command("impact [contract...]")
    .description("what changed in a contract, what it breaks, and where in your code")
    .option("--before <side>", "compare this instead of the pin: a file, a URL, a release, or git:REVISION")
    .option("--after <side>", "compare with this instead of the contract as it is now")
    .option("--all", "also list compatible changes and changes to what you do not use")
    .option("--fresh", "ask the servers of remote contracts what they have now; uses the network, saves nothing")
    .option("--prove", "check the app with what the SDK would be, and show each new error under its change")
    .addOption(new Option("--report <form>", "the form of the report").choices(reportForms).default("text"))
    .addOption(impactGate)
    .addOption(impactJudge)
    .addOption(mostUsersOption())
    .action(
      async (
        contracts: string[],
        flags: GateFlags & {
          before?: string;
          after?: string;
          all?: boolean;
          prove?: boolean;
          fresh?: boolean;
          mostUsers?: number;
          report?: ReportForm;
        },
      ) => {
        const { impactCommand } = await import("./commands/impact.js");
        const options = {
          contracts,
          before: flags.before,
          after: flags.after,
          all: flags.all === true,
          prove: flags.prove,
          fresh: flags.fresh === true,
          gate: { ...gateOf(flags), ...(flags.mostUsers === undefined ? {} : { mostUsers: flags.mostUsers }) },
          report: flags.report ?? "text",
        };
        await run((terminal) => impactCommand(terminal, globals(), options));
      },
    );

  program
    .command("pull [contract...]")
    .description("refresh the copies of contracts that come from a URL, a GraphQL endpoint or a command")
    .option("--check", "only say whether the origin moved (exit 1), and save nothing")
    .action(async (contracts: string[], flags: { check?: boolean }) => {
      const { pullCommand } = await import("./commands/pull.js");
      await run((terminal) => pullCommand(terminal, globals(), { contracts, check: flags.check === true }));
    });

  program
    .command("watch [sdk...]")
    .usage("[options] [sdk...] [-- command...]")
    .description(
      "regenerate on every save of a contract, a query document or the configuration; beside a command of the app's own, where one stands after --",
    )
    .option("--partial", "write an SDK without its bad query documents instead of holding it back")
    .option("--play", "play the contracts in the same process")
    .option("--port <number>", "port to play on", "4020")
    .action(async (sdks: string[], flags: { partial?: boolean; play?: boolean; port: string }) => {
      const { watchCommand } = await import("./commands/watch.js");
      const options = {
        sdks,
        partial: flags.partial === true,
        playOn: flags.play === true ? flags.port : undefined,
        beside,
      };
      await run((terminal) => watchCommand(terminal, globals(), options));
    });

  program
    .command("play [contract...]")
    .description("run a stand-in server that plays the contracts")
    .option("--port <number>", "port to listen on", "4020")
    .option("--host <address>", "address to listen on", "127.0.0.1")
    .option("--seed <number>", "another seed gives other data", "1")
    .option("--wish <text>", 'answer so: "reserveBerth: status=409, delay=800"; may be given again', collected, [])
    .option("--no-auth", "ask for no credentials")
    .action(async (contracts: string[], { wish, ...flags }: PlayFlags) => {
      const { playCommand } = await import("./commands/play.js");
      const options = { contracts, wishes: wish, ...flags };
      await run((terminal) => playCommand(terminal, globals(), options));
    });

  program
    .command("try <call> [arguments...]")
    .description("perform one call, as name=value, on the stand-in or a real server, and show the data")
    .option("--contract <name>", "the contract, where several have such a call")
    .option("--base-url <url>", "a real server instead of the stand-in")
    .option("--header <text>", 'sent along: "authorization: Bearer ${NAME}"; may be given again', collected, [])
    .option("--wish <text>", "how the stand-in answers: status=409, delay=800")
    .option("--seed <number>", "another seed gives other data", "1")
    .option("--code <folder>", "write a small program for the call into a folder instead")
    .option("--yes", "change something on a real server without asking")
    .action(async (call: string, texts: string[], flags: TryFlags) => {
      const { tryCommand } = await import("./commands/try.js");
      await run((terminal) => tryCommand(terminal, globals(), { call, texts, ...flags }));
    });

  program
    .command("explain [code]")
    .description("what a problem or change code means, with an example, and how to fix it")
    .action(async (code: string | undefined) => {
      const { explainCommand } = await import("./commands/explain.js");
      await run((terminal) => Promise.resolve(explainCommand(terminal, code)));
    });

  program
    .command("observe [url]")
    .description("stand between app and backend, or read recorded traffic, and report what disagrees with the contract")
    .option("--contract <name>", "judge by this contract only; may be given again", collected, [])
    .option("--har <file>", "judge recorded traffic instead; may be given again", collected, [])
    .option("--port <number>", "port to listen on", "4021")
    .option("--host <address>", "address to listen on", "127.0.0.1")
    .option("--for <seconds>", "end and report after so long")
    .addOption(new Option("--report <form>", "the form of the report").choices(observeForms).default("text"))
    .action(async (url: string | undefined, flags: Omit<ObserveCommandOptions, "url">) => {
      const { observeCommand } = await import("./commands/observe.js");
      const options = { ...flags, url, for: flags.for };
      await run((terminal) => observeCommand(terminal, globals(), options));
    });

  program
    .command("outline [contract...]")
    .description("what a contract offers, and which of it this project uses")
    .option("--find <text>", "only what holds this text")
    .option("--unused", "only what this project does not use")
    .option("--about <name>", "one operation or type in full, with everything it reaches")
    .addOption(
      new Option("--replaceable", "requests, types and queries written by hand that an SDK has too").conflicts([
        "find",
        "unused",
        "about",
      ]),
    )
    .action(async (contracts: string[], flags: OutlineFlags) => {
      if (flags.replaceable === true) {
        const { replaceableCommand } = await import("./commands/replaceable.js");
        await run((terminal) => replaceableCommand(terminal, globals(), contracts));
        return;
      }
      const { outlineCommand } = await import("./commands/outline.js");
      const options = { contracts, find: flags.find, unused: flags.unused === true, about: flags.about };
      await run((terminal) => outlineCommand(terminal, globals(), options));
    });

  program
    .command("draft <contract> [field...]")
    .description("write query documents for the root fields of a schema, and never over a file")
    .option("--depth <number>", "how many levels of objects are selected", "3")
    .option("--into <folder>", "where to write them (default: where the contract's queries are)")
    .action(async (contract: string, fields: string[], flags: { depth: string; into?: string }) => {
      const { draftCommand } = await import("./commands/draft.js");
      const options = { contract, fields, depth: flags.depth, into: flags.into };
      await run((terminal) => draftCommand(terminal, globals(), options));
    });

  program
    .command("completion [shell]")
    .description("print what bash, zsh or fish needs to complete commands, options and names")
    .addOption(new Option("--at <number>", "which of the words after -- is completed").hideHelp())
    .argument("[words...]")
    .usage("[options] [shell]")
    .action(async (shell: string | undefined, words: string[], flags: { at?: string }) => {
      const { completedCommand, completionCommand } = await import("./commands/completion.js");
      const line = { words: shell === undefined ? [] : [shell, ...words], at: Number(flags.at) };
      await run((terminal) =>
        flags.at === undefined
          ? Promise.resolve(completionCommand(terminal, shell))
          : completedCommand(terminal, globals(), { program, line }),
      );
    });

  program
    .command("demo")
    .description("the whole flow on made-up data, in a temporary folder")
    .action(async () => {
      const { demoCommand } = await import("./commands/demo.js");
      await run((terminal) => demoCommand(terminal));
    });

  try {
    await program.parseAsync(own, { from: "user" });
  } catch (error) {
    if (!(error instanceof CommanderError)) throw error;
    return error.exitCode === 0 ? exitCodes.done : exitCodes.usage;
  }
  return exitCode;
}

/** Parts the arguments of `watch` from those of the command that stands after `--`. */
function withoutBeside(argv: readonly string[]): { readonly own: string[]; readonly beside: readonly string[] } {
  const at = argv.indexOf("--");
  const own = at < 0 ? argv : argv.slice(0, at);
  return at >= 0 && own.includes("watch")
    ? { own: [...own], beside: argv.slice(at + 1) }
    : { own: [...argv], beside: [] };
}

interface OutlineFlags {
  readonly find?: string;
  readonly unused?: boolean;
  readonly about?: string;
  readonly replaceable?: boolean;
}

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

type TryFlags = Omit<TryCommandOptions, "call" | "texts">;

interface PlayFlags {
  readonly port: string;
  readonly host: string;
  readonly seed: string;
  readonly wish: readonly string[];
  readonly auth: boolean;
}

/** An option that may be given again. */
function collected(value: string, before: readonly string[]): string[] {
  return [...before, value];
}
