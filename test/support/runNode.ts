import { execFile } from "node:child_process";
import { promisify } from "node:util";
import { plainEnvironment } from "./plainEnvironment.js";

/** Runs a program with Node, while this process continues to respond to it. Returns its standard output. */
export async function runNode(
  folder: string,
  args: readonly string[],
  env: Readonly<Record<string, string>> = {},
): Promise<string> {
  const options = { cwd: folder, env: plainEnvironment(env) };
  return (await promisify(execFile)(process.execPath, args, options)).stdout;
}
