import { exitCodes } from "../../workspace/project/halt.js";

/**
 * Megabytes for young objects: a command that continues to run creates many short-lived ones (measured: a fifth of a
 * save).
 */
const roomForYoung = "--max-semi-space-size=64";

/**
 * Kilobytes of stack: checks of types that refer to each other a thousand times are compiled one inside the other. It
 * is less than the limit of common systems. On systems with a lower limit, it is not changed.
 */
const deeper = process.platform === "linux" || process.platform === "darwin" ? ["--stack-size=3900"] : [];

/** Milliseconds until the command must have ended after a signal. */
const longestEnd = 3_000;

/** Returns whether this process already has the memory. */
export function hasRoom(): boolean {
  return process.execArgv.some((flag) => flag.startsWith("--max-semi-space-size"));
}

/**
 * Runs the same command in a process with more memory, which can only be set at the start. Signals reach that process,
 * and it does not outlive this one.
 *
 * @returns its exit code
 */
export async function runWithRoom(): Promise<number> {
  // Loaded here, because it loads Node's network too, which no other command needs.
  const { spawn } = await import("node:child_process");
  const [, program = "", ...args] = process.argv;
  const child = spawn(
    process.execPath,
    [...process.execArgv, roomForYoung, "--min-semi-space-size=16", ...deeper, program, ...args],
    {
      stdio: ["inherit", "inherit", "inherit", "ipc"],
    },
  );
  for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"] as const)
    process.on(signal, () => {
      // A terminal sends an interrupt to both. A second one does no harm.
      child.kill(signal);
      // A process that is too busy to react is ended anyway.
      setTimeout(() => child.kill("SIGKILL"), longestEnd).unref();
    });
  return new Promise((resolve) => {
    child.on("exit", (code, signal) => {
      resolve(code ?? (signal === "SIGINT" || signal === "SIGTERM" ? exitCodes.done : exitCodes.defect));
    });
  });
}

/** Ends together with the process that started this one, however that ends. */
export function endWithStarter(): void {
  if (process.channel === undefined) return;
  process.channel.unref();
  process.on("disconnect", () => process.exit(0));
}
