import { Command, CommanderError } from "commander";
import { hideSecrets } from "../core/text/secrets.js";
import { exitCodes } from "../workspace/project/halt.js";
import { version } from "../workspace/files/packageFolder.js";
import type { SourceUse } from "../core/use/sourceUse.js";
import type { ModuleImporter } from "../workspace/files/moduleImporter.js";
import type { UseTask } from "../workspace/uses/useTask.js";
import { processHost, type Host } from "./process/host.js";
import { addCheck } from "./arguments/addCheck.js";
import { addCompletion } from "./arguments/addCompletion.js";
import { addDemo } from "./arguments/addDemo.js";
import { addDraft } from "./arguments/addDraft.js";
import { addExplain } from "./arguments/addExplain.js";
import { addGenerate } from "./arguments/addGenerate.js";
import { addImpact } from "./arguments/addImpact.js";
import { addInit } from "./arguments/addInit.js";
import { addObserve } from "./arguments/addObserve.js";
import { addOutline } from "./arguments/addOutline.js";
import { addPlay } from "./arguments/addPlay.js";
import { addPull } from "./arguments/addPull.js";
import { addTry } from "./arguments/addTry.js";
import { addWatch } from "./arguments/addWatch.js";
import type { CommandLine } from "./arguments/commandLine.js";
import { runCommand } from "./runCommand.js";
import type { GlobalOptions, Terminal } from "./output/terminal.js";

export { processHost };

/** Searches for an app's uses of its SDKs, in a thread of its own. */
export async function usesOfTask(task: UseTask, importer: ModuleImporter): Promise<SourceUse[]> {
  return (await import("../workspace/uses/usesOfTask.js")).usesOfTask(task, importer);
}

/** Functions that add the commands, in the order of the help. */
const commands: readonly ((line: CommandLine) => void)[] = [
  addInit,
  addGenerate,
  addCheck,
  addImpact,
  addPull,
  addWatch,
  addPlay,
  addTry,
  addExplain,
  addObserve,
  addOutline,
  addDraft,
  addCompletion,
  addDemo,
];

/**
 * Runs the command line. Each command's own code is loaded when it runs.
 *
 * @param argv the arguments, without the program's name
 * @param host the process of the command
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
      // An argument of the user may contain a credential.
      writeErr: (text) => host.errors.write(hideSecrets(text)),
    });
  const globals = (): GlobalOptions => program.opts<GlobalOptions>();
  const run = async (command: (terminal: Terminal) => Promise<number>): Promise<void> => {
    exitCode = await runCommand(host, globals(), command);
  };

  const line: CommandLine = { program, beside, globals, run };
  for (const add of commands) add(line);

  try {
    await program.parseAsync(own, { from: "user" });
  } catch (error) {
    if (!(error instanceof CommanderError)) throw error;
    return error.exitCode === 0 ? exitCodes.done : exitCodes.usage;
  }
  return exitCode;
}

/** Separates the arguments of `watch` from the command after `--`. */
function withoutBeside(argv: readonly string[]): { readonly own: string[]; readonly beside: readonly string[] } {
  const at = argv.indexOf("--");
  const own = at < 0 ? argv : argv.slice(0, at);
  return at >= 0 && own.includes("watch")
    ? { own: [...own], beside: argv.slice(at + 1) }
    : { own: [...argv], beside: [] };
}
