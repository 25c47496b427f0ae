import { existsSync, linkSync, readdirSync, realpathSync, renameSync, rmSync, statSync, writeFileSync } from "node:fs";
import { basename, dirname, join } from "node:path";
import { errorCode } from "./textFile.js";

const ending = ".unfinished";

/**
 * Creates a file that exists completely or not at all, however the process ends.
 *
 * @throws the file system's error, EEXIST if the file exists
 */
export function createWhole(path: string, text: string): void {
  const unfinished = begin(path, text);
  try {
    linkSync(unfinished, path);
  } catch (error) {
    const hasNoLinks = ["EPERM", "ENOTSUP", "ENOSYS", "EMLINK"].includes(errorCode(error) ?? "");
    if (!hasNoLinks || existsSync(path)) throw error;
    renameSync(unfinished, path);
  } finally {
    rmSync(unfinished, { force: true });
  }
}

/**
 * Replaces a file that somebody else has written. It has either the old or the new content, with the old permissions.
 */
export function replaceWhole(path: string, text: string): void {
  const target = realpathSync(path);
  const unfinished = begin(target, text, statSync(target).mode);
  try {
    renameSync(unfinished, target);
  } finally {
    rmSync(unfinished, { force: true });
  }
}

function begin(path: string, text: string, mode = 0o666): string {
  sweepUnfinished(path);
  const unfinished = `${path}.${String(process.pid)}${ending}`;
  writeFileSync(unfinished, text, { mode });
  return unfinished;
}

/** Removes the files of processes that were killed while they wrote this file. */
export function sweepUnfinished(path: string): void {
  const start = `${basename(path)}.`;
  for (const name of readdirSync(dirname(path)))
    if (name.startsWith(start) && /^\d+\.unfinished$/.test(name.slice(start.length)))
      rmSync(join(dirname(path), name), { force: true });
}
