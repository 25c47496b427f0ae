import { execFileSync } from "node:child_process";
import { statSync } from "node:fs";
import { join } from "node:path";
import { readCopy } from "./copies.js";
import { remoteSources } from "./obtainCopies.js";
import type { Project } from "../project/project.js";

/** A copy of a remote contract that is used. */
export interface UsedCopy {
  readonly contract: string;
  readonly file: string;
  /** When it was fetched; for an unchanged committed copy, when it was committed. */
  readonly from: Date;
}

/** Returns the copies that are used for contracts from a server or a command. */
export function usedCopies(project: Project, contracts: readonly string[]): UsedCopy[] {
  return contracts.flatMap((contract) => {
    const settings = project.configuration.contracts[contract];
    const [first] = settings ? remoteSources(settings) : [];
    const isRemote = settings !== undefined && remoteSources(settings).length > 0;
    const copy = isRemote ? readCopy(project, contract, first) : undefined;
    return copy ? [{ contract, file: copy.document, from: dateOf(project, copy.document) }] : [];
  });
}

/** A fresh clone writes all files at once, so the date of a commit is better than the file's own. */
function dateOf({ root }: Project, file: string): Date {
  const git = (...args: string[]): string | undefined => {
    try {
      return execFileSync("git", args, { cwd: root, encoding: "utf8", stdio: "pipe" }).trim();
    } catch {
      return undefined;
    }
  };
  const committed = git("status", "--porcelain", "--", file) === "" ? git("log", "-1", "--format=%cI", "--", file) : "";
  const date = new Date(committed ?? "");
  return Number.isNaN(date.getTime()) ? statSync(join(root, file)).mtime : date;
}

const units = [
  ["day", 86_400_000],
  ["hour", 3_600_000],
  ["minute", 60_000],
] as const;

/** Returns how long ago something was: "3 days old", "just fetched". */
export function ageText(from: Date, now: Date): string {
  const passed = now.getTime() - from.getTime();
  for (const [unit, length] of units) {
    const count = Math.floor(passed / length);
    if (count > 0) return `${String(count)} ${unit}${count === 1 ? "" : "s"} old`;
  }
  return "just fetched";
}
