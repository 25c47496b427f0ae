import type { Command, Option } from "commander";

/** The names in a project, or in the program itself, that can be an argument or a value. */
export type NameKind = "sdk" | "contract" | "call" | "code" | "command" | "shell";

/** A line to complete. */
export interface Line {
  /** The words of the line, the program's name first. The last one may be incomplete or missing. */
  readonly words: readonly string[];
  /** The index of the word to complete. */
  readonly at: number;
}

/** Options whose value is a name. The value of another option is one of its choices, or anything. */
const kindByOption: Readonly<Record<string, NameKind>> = {
  "--contract": "contract",
  "--about": "call",
  "--override": "call",
};

/** Arguments that are names, by their name in commands. */
const kindByArgument: Readonly<Record<string, NameKind>> = {
  sdk: "sdk",
  contract: "contract",
  call: "call",
  code: "code",
  command: "command",
  shell: "shell",
};

/**
 * Returns the possible words at a position, sorted.
 *
 * @param names returns the names of a kind; an empty list if there are none
 */
export async function completedWords(
  program: Command,
  { words, at }: Line,
  names: (kind: NameKind) => Promise<readonly string[]>,
): Promise<string[]> {
  const begun = words[at] ?? "";
  // The rest is a command of the app's own.
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

/** The commands in the help. */
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
  /** The number of arguments so far. */
  readonly given: number;
  /** The option whose value is next. */
  readonly pending: Option | undefined;
}

/** Reads the words before the one to complete. */
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

/** The help command, which the parser adds itself. */
function helpOf(program: Command, word: string): Command | undefined {
  return program
    .createHelp()
    .visibleCommands(program)
    .find((each) => each.name() === word);
}

/** Names come from contracts of others: only names that a shell treats as one word are completed. */
function isPlain(word: string): boolean {
  return /^[\p{L}\p{N}_.$@/-]+$/u.test(word);
}
