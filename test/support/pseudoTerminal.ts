import { spawn } from "node:child_process";
import { existsSync } from "node:fs";
import { programPath } from "./packageRoot.js";
import type { Ran } from "./runningProgram.js";
import { plainEnvironment } from "./plainEnvironment.js";

/** The usual program that runs another one in a pseudo-terminal; undefined if it is not installed. */
export const pseudoTerminal = ["/usr/bin/script"].find((path) => process.platform === "linux" && existsSync(path));

/** The keys to press once a text has been shown. */
export interface Press {
  readonly after: string;
  readonly keys: string;
}

/** Runs the built program in a pseudo-terminal of 80 columns, and presses keys like a person. */
export async function runInTerminal(folder: string, args: readonly string[], presses: readonly Press[]): Promise<Ran> {
  const command = [process.execPath, programPath, ...args]
    .map((part) => `'${part.replaceAll("'", `'\\''`)}'`)
    .join(" ");
  const child = spawn(pseudoTerminal ?? "", ["-qefc", `stty cols 80; ${command}`, "/dev/null"], {
    cwd: folder,
    env: plainEnvironment({ TERM: "xterm" }),
  });
  let out = "";
  let from = 0;
  const open = [...presses];
  child.stdout.setEncoding("utf8").on("data", (part: string) => {
    out += part;
    for (let next = open[0]; next && out.includes(next.after, from); next = open[0]) {
      from = out.indexOf(next.after, from) + next.after.length;
      child.stdin.write(next.keys);
      open.shift();
    }
  });
  const code = await new Promise<number | null>((resolve) => child.on("close", resolve));
  return { code, out: plain(out), err: "" };
}

/** The text in a terminal, without its styles. */
function plain(text: string): string {
  return text.replace(/\u001b\[[\d;?]*[A-Za-z]/g, "").replaceAll("\r", "");
}
