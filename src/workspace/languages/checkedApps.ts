import { join } from "node:path";
import { problem } from "../../core/problem/problem.js";
import type { CompileError } from "../../core/use/compileError.js";
import { exitCodes, Halt } from "../project/halt.js";
import type { Project } from "../project/project.js";
import { readText } from "../files/textFile.js";
import { AppCopy } from "./appCopy.js";
import { checkerComplaints, type CheckerComplaint } from "./checkerReport.js";
import type { MadeFiles } from "./languageTools.js";
import { runChecker, type CheckerCommand } from "./runChecker.js";

/** The checker that an app's own developers use, with its name. */
export interface AppChecker {
  readonly command: CheckerCommand;
  readonly shown: string;
}

/** The place of an error in a file of the app. */
export interface ComplaintPlace {
  readonly text: string;
  readonly offset: number;
  readonly length: number;
}

/** An app and its checker. */
export interface CheckedApp {
  readonly project: Project;
  readonly checker: AppChecker;
  readonly describe?: Describing;
}

/** Returns the code around an error, from the knowledge of the language's compiler. */
export type Describing = (complaint: CheckerComplaint, at: ComplaintPlace) => CompileError | undefined;

/** Returns the checker in the configuration. */
export function configuredChecker(run: string): AppChecker {
  return { command: { shell: run }, shown: run };
}

/**
 * Returns the errors of the app's own checker, on a copy of the app: with the current SDKs, and the additional ones
 * with other SDKs.
 *
 * @param old the files of the current SDKs, if they are not the ones on disk
 * @throws Halt if the checker fails and reports nothing about source
 */
export async function checkedApps(
  { project, checker, describe }: CheckedApp,
  made: MadeFiles,
  old: MadeFiles | undefined,
): Promise<{ before: CompileError[]; fresh: CompileError[] }> {
  const copy = new AppCopy(project.root);
  try {
    const complaints = async (): Promise<CheckerComplaint[]> => {
      const { output, exitCode } = await runChecker(checker.command, copy.root);
      const found = checkerComplaints(output, copy.root);
      if (exitCode !== 0 && found.length === 0) throw failed(checker, output);
      return found;
    };
    if (old) copy.put(old);
    const before = await complaints();
    copy.removeBuilt();
    copy.put(made);
    const known = new Set(before.map(keyOf));
    const fresh = (await complaints()).filter((each) => !known.has(keyOf(each)));
    project.trace(() => `ran ${checker.shown} twice on a copy of the app`);
    const described = (complaint: CheckerComplaint): CompileError => {
      const at = placeOf(project, made, complaint);
      return describe?.(complaint, at) ?? plainly(complaint, at);
    };
    return { before: before.map(described), fresh: fresh.map(described) };
  } finally {
    copy.remove();
  }
}

/** Earlier errors may have other messages now, because messages contain whole types. */
function keyOf({ file, line, column, code }: CheckerComplaint): string {
  return `${file} ${String(line)} ${String(column)} ${code}`;
}

function placeOf(project: Project, made: MadeFiles, { file, line, column }: CheckerComplaint): ComplaintPlace {
  const path = join(project.root, file);
  let text = made.texts.get(path);
  try {
    text ??= readText(path);
  } catch {
    // A file that only the copy has.
    text = "";
  }
  let start = 0;
  for (let row = 1; row < line; row++) start = Math.max(start, text.indexOf("\n", start) + 1);
  const offset = Math.min(start + column - 1, text.length);
  const [word = " "] = /^[\p{ID_Continue}$]+/u.exec(text.slice(offset, offset + longestWord)) ?? [];
  return { text, offset, length: word.length };
}

const longestWord = 200;

/** An error of which only the line is known. */
function plainly({ file, code, message }: CheckerComplaint, { text, offset, length }: ComplaintPlace): CompileError {
  const start = text.lastIndexOf("\n", offset - 1) + 1;
  const next = text.indexOf("\n", offset);
  const line: [number, number] = [start, next < 0 ? text.length : next];
  return {
    place: { document: file, offset, length },
    code,
    message,
    members: [...message.matchAll(/['`"\u2018\u201c]([\p{ID_Continue}$]+)['`"\u2019\u201d]/gu)].map(
      ([, name = ""]) => name,
    ),
    ranges: [[offset, offset + length], line],
    origins: [],
    scope: line,
    statement: text.slice(...line),
  };
}

function failed({ shown }: AppChecker, output: string): Halt {
  const lines = output.trimEnd().split("\n").slice(-lastLines);
  return new Halt(
    [
      problem("proof.failed", `\`${shown}\` fails on a copy of the app, without naming a location in its source.`, {
        why: lines.join(" ").trim() === "" ? "It printed nothing." : lines.map((line) => line.trim()).join(" / "),
        hint: "Run it in the app's folder and fix what it needs, or set another command with `proof`.",
      }),
    ],
    exitCodes.unreadable,
  );
}

const lastLines = 4;
