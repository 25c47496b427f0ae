import type { Command } from "commander";
import { problem } from "../../core/problem/problem.js";
import { callNames } from "../../workspace/callNames.js";
import { exitCodes, Halt } from "../../workspace/project/halt.js";
import { openProject, type OpenedProject } from "../../workspace/project/openProject.js";
import { completedWords, type Line, type NameKind } from "../completion/completedWords.js";
import { completionScripts, shells, type Shell } from "../completion/completionScripts.js";
import type { GlobalOptions, Terminal } from "../output/terminal.js";

/**
 * `rhema completion SHELL`: prints the script that a shell runs once for completion.
 *
 * @throws Halt if the shell is not supported
 */
export function completionCommand(terminal: Terminal, shell: string | undefined): number {
  const known = shells.find((each) => each === shell);
  if (known === undefined) {
    const hint = `One of: ${shells.join(", ")}.`;
    throw new Halt([problem("option.value", "rhema completion needs the name of a shell.", { hint })], exitCodes.usage);
  }
  terminal.host.output.write(completionScripts[known satisfies Shell]);
  return exitCodes.done;
}

/**
 * `rhema completion --at N -- WORDS`: prints the completions for a shell, one per line. A project that cannot be read
 * has no names.
 */
export async function completedCommand(
  terminal: Terminal,
  globals: GlobalOptions,
  { program, line }: { readonly program: Command; readonly line: Line },
): Promise<number> {
  let project: Promise<OpenedProject | undefined> | undefined;
  const opened = (): Promise<OpenedProject | undefined> =>
    (project ??= openProject(terminal.host, globals.config, { isKnownSound: () => true }).catch(() => undefined));
  const names = async (kind: NameKind): Promise<readonly string[]> => {
    if (kind === "code") return codes();
    if (kind === "shell") return shells;
    const found = await opened();
    if (!found) return [];
    if (kind === "call") return callNames(found);
    return Object.keys(kind === "sdk" ? found.configuration.sdks : found.configuration.contracts);
  };
  const words = await completedWords(program, line, names);
  terminal.host.output.write(words.map((word) => `${word}\n`).join(""));
  return exitCodes.done;
}

async function codes(): Promise<string[]> {
  const [{ problemMeanings }, { changeMeanings }] = await Promise.all([
    import("../../core/problem/codes.js"),
    import("../../core/change/changeCodes.js"),
  ]);
  return [...Object.keys(problemMeanings), ...Object.keys(changeMeanings)];
}
