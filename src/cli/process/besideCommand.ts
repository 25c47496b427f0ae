import { spawn } from "node:child_process";
import { problem } from "../../core/problem/problem.js";
import { exitCodes, Halt } from "../../workspace/project/halt.js";

/** A running command of the app's own. */
export interface Beside {
  /** Its exit code, once it has ended; undefined if a signal ended it. */
  readonly ended: Promise<number | undefined>;
  /** Asks it to end, and waits until it has. */
  readonly end: () => Promise<number | undefined>;
}

/** Milliseconds until it must have ended on its own: a terminal sends an interrupt to it too. */
const politeMs = 500;
/** Milliseconds until it must have ended after it was asked to. */
const longestMs = 2_000;

/**
 * Starts a command with the same output as Rhema's.
 *
 * @param words the program and its arguments
 * @param where the folder and the environment
 * @param isOutputTaken whether standard output is for Rhema only; the command then writes to standard error
 * @throws Halt if it cannot be started
 */
export async function startBeside(
  words: readonly string[],
  where: { readonly folder: string; readonly environment: Readonly<Record<string, string | undefined>> },
  isOutputTaken: boolean,
): Promise<Beside> {
  const [program = "", ...args] = words;
  const child = spawn(program, args, {
    cwd: where.folder,
    env: where.environment,
    stdio: ["inherit", isOutputTaken ? 2 : "inherit", "inherit"],
    // On Windows, programs of packages are scripts, which only a shell starts.
    shell: process.platform === "win32",
  });
  let isOver = false;
  const ended = new Promise<number | undefined>((resolve) =>
    child.once("close", (code) => {
      isOver = true;
      resolve(code ?? undefined);
    }),
  );
  await new Promise<void>((resolve, reject) => {
    child.once("spawn", resolve);
    child.once("error", (error: NodeJS.ErrnoException) => {
      const why = `\`${program}\` cannot be started (${error.code ?? error.message}).`;
      reject(new Halt([problem("option.value", why, { hint: "Check that it runs in a terminal." })], exitCodes.usage));
    });
  });
  const end = async (): Promise<number | undefined> => {
    const stop = (signal: NodeJS.Signals, afterMs: number): NodeJS.Timeout =>
      setTimeout(() => {
        if (!isOver) child.kill(signal);
      }, afterMs);
    const timers = [stop("SIGTERM", politeMs), stop("SIGKILL", politeMs + longestMs)];
    const code = await ended;
    timers.forEach(clearTimeout);
    return code;
  };
  return { ended, end };
}
