import type { Command, Option } from "commander";

/** What words of a project, or of the program itself, can stand for an argument or a value. */
export type NameKind = "sdk" | "contract" | "call" | "code" | "command" | "shell";

/** A line that somebody completes. */
export interface Line {
  /** The words of the line, the program's name first; the last may be begun, or missing. */
  readonly words: readonly string[];
  /** Which of them is completed. */
  readonly at: number;
}

/** Options whose value is a name; of others it is one of their choices, or anything. */
const kindByOption: Readonly<Record<string, NameKind>> = {
  "--contract": "contract",
  "--about": "call",
  "--override": "call",
};

/** Arguments that are names, by what commands call them. */
const kindByArgument: Readonly<Record<string, NameKind>> = {
  sdk: "sdk",
  contract: "contract",
  call: "call",
  code: "code",
  command: "command",
  shell: "shell",
};

/** The words that the one at hand may become, sorted. Undefined of `names` means that there are none. */
export async function completedWords(
  program: Command,
  { words, at }: Line,
  names: (kind: NameKind) => Promise<readonly string[]>,
): Promise<string[]> {
  const begun = words[at] ?? "";
  // What stands there is no command of ours.
  if (words.slice(1, at).includes("--")) return [];
  const { command, given, pending } = readLine(program, words.slice(1, at));
  const fitting = (all: readonly string[]): string[] =>
    [...new Set(all)].filter((word) => word.startsWith(begun) && isPlain(word)).sort();
  if (pending) {
    const kind = kindByOption[pending.long ?? ""];
    return fitting(pending.argChoices ?? (kind === undefined ? [] : await names(kind)));
  }
  if (begun.startsWith("-")) return fitting(optionsOf(program, command).flatMap(({ long }) => long ?? []));
  if (!command) return fitting(visibleCommands(program));
  const registered = command.registeredArguments;
  const argument = registered[Math.min(given, registered.length - 1)];
  if (argument === undefined || (given >= registered.length && !argument.variadic)) return [];
  if (argument.argChoices) return fitting(argument.argChoices);
  const kind = kindByArgument[argument.name()];
  return kind === undefined ? [] : fitting(kind === "command" ? visibleCommands(program) : await names(kind));
}

/** Commands that the help lists. */
function visibleCommands(program: Command): string[] {
  return program
    .createHelp()
    .visibleCommands(program)
    .map((each) => each.name());
}

function optionsOf(program: Command, command: Command | undefined): Option[] {
  const help = program.createHelp();
  return [...(command ? help.visibleOptions(command) : []), ...help.visibleOptions(program)];
}

interface ReadLine {
  readonly command: Command | undefined;
  /** How many arguments stand there. */
  readonly given: number;
  /** The option whose value comes next. */
  readonly pending: Option | undefined;
}

/** Reads the words before the one at hand. */
function readLine(program: Command, words: readonly string[]): ReadLine {
  let command: Command | undefined;
  let given = 0;
  let pending: Option | undefined;
  for (const word of words) {
    if (pending) pending = undefined;
    else if (word.startsWith("-")) {
      const option = optionsOf(program, command).find(({ long, short }) => word === long || word === short);
      pending = option && (option.required || option.optional) ? option : undefined;
    } else if (!command) command = program.commands.find((each) => each.name() === word) ?? helpOf(program, word);
    else given++;
  }
  return { command, given, pending };
}

/** The command that helps, which the parser makes by itself. */
function helpOf(program: Command, word: string): Command | undefined {
  return program
    .createHelp()
    .visibleCommands(program)
    .find((each) => each.name() === word);
}

/** Names come from contracts of others: nothing that a shell could take for more than a word. */
function isPlain(word: string): boolean {
  return /^[\p{L}\p{N}_.$@/-]+$/u.test(word);
}
