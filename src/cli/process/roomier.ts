import { exitCodes } from "../../workspace/project/halt.js";

/** Megabytes for what is young: a command that runs on makes much that is soon forgotten (measured: a fifth of a save). */
const roomForYoung = "--max-semi-space-size=64";

/**
 * Kilobytes of stack: checks of types that lead into each other a thousand times are compiled one inside the other.
 * Below what the usual systems give; where they give less, it stays as it is.
 */
const deeper = process.platform === "linux" || process.platform === "darwin" ? ["--stack-size=3900"] : [];

/** Milliseconds that the command has to end by itself after a signal. */
const longestEnd = 3_000;

/** Whether this process has the room already. */
export function hasRoom(): boolean {
  return process.execArgv.some((flag) => flag.startsWith("--max-semi-space-size"));
}

/**
 * Runs the same command in a process with more room, which can only be given at the start, and gives its exit code.
 * Signals reach it, and it does not outlive this one.
 */
export async function runWithRoom(): Promise<number> {
  // Loaded here, because it brings Node's network along, which no other command should pay for.
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
      // A terminal sends an interrupt to both; a second one does no harm.
      child.kill(signal);
      // One that is too busy to hear of it is ended all the same.
      setTimeout(() => child.kill("SIGKILL"), longestEnd).unref();
    });
  return new Promise((resolve) => {
    child.on("exit", (code, signal) => {
      resolve(code ?? (signal === "SIGINT" || signal === "SIGTERM" ? exitCodes.done : exitCodes.defect));
    });
  });
}

/** Ends with the process that started this one, however that ends. */
export function endWithStarter(): void {
  if (process.channel === undefined) return;
  process.channel.unref();
  process.on("disconnect", () => process.exit(0));
}
