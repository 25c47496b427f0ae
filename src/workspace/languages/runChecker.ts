import { spawn } from "node:child_process";

const longestMs = 15 * 60_000;
const mostCharacters = 64 * 1024 * 1024;

/** A command for a compiler or checker: arguments for Node, or a shell command from the configuration. */
export type CheckerCommand = { readonly node: readonly string[] } | { readonly shell: string };

export interface CheckerRun {
  readonly output: string;
  /** Undefined if it was stopped. */
  readonly exitCode: number | undefined;
}

/**
 * Runs a compiler or checker to its end.
 *
 * @param folder the folder in which it runs
 * @returns the exit code and the whole output
 */
export function runChecker(command: CheckerCommand, folder: string): Promise<CheckerRun> {
  return new Promise((resolve) => {
    const [program, args, shell] =
      "node" in command ? [process.execPath, command.node, false] : [command.shell, [], true];
    const child = spawn(program, args, { cwd: folder, stdio: ["ignore", "pipe", "pipe"], timeout: longestMs, shell });
    const parts: string[] = [];
    let length = 0;
    const keep = (part: Buffer): void => {
      length += part.length;
      if (length <= mostCharacters) parts.push(part.toString("utf8"));
    };
    child.stdout.on("data", keep);
    child.stderr.on("data", keep);
    child.on("error", (error) => {
      resolve({ output: error.message, exitCode: undefined });
    });
    child.on("close", (code) => {
      resolve({ output: parts.join(""), exitCode: code ?? undefined });
    });
  });
}
