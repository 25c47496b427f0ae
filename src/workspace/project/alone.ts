import { closeSync, openSync, readFileSync, rmSync, statSync, writeSync } from "node:fs";
import { join } from "node:path";
import { stateFolder, type Project } from "./project.js";
import { errorCode } from "../files/textFile.js";

const retryMs = 20;
/** A killed process leaves its lock. Its number may belong to another process now. */
const staleAfterMs = 60_000;

/**
 * Runs an action while no other process does the same in a project. Waits for a process that is running one.
 *
 * @param project its state folder exists
 */
export function alone<T>(project: Pick<Project, "root">, work: () => T): T {
  const path = join(stateFolder(project), "lock");
  while (!locked(path)) Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, retryMs);
  try {
    return work();
  } finally {
    rmSync(path, { force: true });
  }
}

function locked(path: string): boolean {
  try {
    const file = openSync(path, "wx");
    writeSync(file, String(process.pid));
    closeSync(file);
    return true;
  } catch (error) {
    if (errorCode(error) !== "EEXIST") throw error;
    if (isStale(path)) rmSync(path, { force: true });
    return false;
  }
}

function isStale(path: string): boolean {
  try {
    const owner = Number(readFileSync(path, "utf8"));
    if (Date.now() - statSync(path).mtimeMs > staleAfterMs) return true;
    // Its owner has not written its process id yet.
    if (owner === 0) return false;
    process.kill(owner, 0);
    return false;
  } catch (error) {
    // ESRCH: there is no such process. ENOENT: it has ended in the meantime.
    return errorCode(error) === "ESRCH";
  }
}
