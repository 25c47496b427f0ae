import { execFile } from "node:child_process";
import { promisify } from "node:util";
import type { Project } from "../project/project.js";

const mostOutput = 128 * 1024 * 1024;

/** The output of a command in the configuration, or in a few words why it failed: "failed (1): no such file". */
export type Printed = { readonly text: string } | { readonly failure: string };

/**
 * Runs a command of the configuration in the project's folder.
 *
 * @param longestMs the time limit in milliseconds
 */
export async function printedBy(project: Project, command: string, longestMs: number): Promise<Printed> {
  const [program = "", ...flags] = process.platform === "win32" ? ["cmd", "/d", "/s", "/c"] : ["/bin/sh", "-c"];
  try {
    const { stdout } = await promisify(execFile)(program, [...flags, command], {
      cwd: project.root,
      env: project.environment,
      maxBuffer: mostOutput,
      timeout: longestMs,
      encoding: "utf8",
    });
    return stdout.trim() === "" ? { failure: "printed nothing" } : { text: stdout };
  } catch (error) {
    const { code, stderr } = error as { code?: number | string; stderr?: string };
    const said = (stderr ?? "").trim().split("\n").slice(-3).join(" ").slice(0, 300);
    return { failure: `failed (${String(code ?? "stopped")})${said === "" ? "" : `: ${said}`}` };
  }
}
