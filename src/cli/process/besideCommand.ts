import { spawn } from "node:child_process";
import { problem } from "../../core/problem/problem.js";
import { exitCodes, Halt } from "../../workspace/project/halt.js";

/** A command of the app's own while it runs. */
export interface Beside {
  /** Its exit code, once it has ended; undefined where a signal ended it. */
  readonly ended: Promise<number | undefined>;
  /** Asks it to end, and waits until it has. */
  readonly end: () => Promise<number | undefined>;
}

/** Milliseconds that it has to end by itself: a terminal sends an interrupt to it as well. */
const politeMs = 500;
/** Milliseconds that it has to end after it was asked to. */
const longestMs = 2_000;

/**
 * Starts a command whose output goes where Rhema's does.
 *
 * @param words the program and its arguments
 * @param isOutputTaken whether standard output belongs to Rhema alone; the command then writes to standard error
 * @throws Halt when it cannot be started
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
    // Programs of packages are scripts there, which only a shell starts.
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
