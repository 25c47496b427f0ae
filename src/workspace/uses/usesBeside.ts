import { existsSync, readdirSync, statSync } from "node:fs";
import { availableParallelism } from "node:os";
import { join } from "node:path";
import { Worker } from "node:worker_threads";
import type { SourceUse } from "../../core/use/sourceUse.js";
import type { SdkPart } from "../languages/languageTools.js";
import { packageFolder } from "../files/packageFolder.js";
import type { Project } from "../project/project.js";
import type { UseTask } from "./useTask.js";

/** For smaller SDKs, in bytes, another thread takes longer to start than it saves. */
const smallest = 1_500_000;

const workerFile = (): string => join(packageFolder(), "dist", "cli", "useWorker.js");

/**
 * Returns whether parts of SDKs are so large that a thread of their own saves time, and whether threads are available.
 */
export function isWorthThread(parts: readonly SdkPart[]): boolean {
  return availableParallelism() > 1 && existsSync(workerFile()) && sizeOf(parts) >= smallest;
}

/** Searches for uses that run in threads of their own while contracts are read and compared. */
export class UsesBeside {
  private readonly begun = new Map<string, { readonly worker: Worker; readonly uses: Promise<SourceUse[]> }>();

  /** Starts to search for uses of parts of SDKs. */
  begin(project: Project, language: string, parts: readonly SdkPart[]): void {
    const { root, configName, environment } = project;
    const task: UseTask = { root, configName, environment: { ...environment }, language, parts };
    project.trace(() => "began to look for uses of the SDKs in a thread of its own");
    const worker = new Worker(workerFile(), { workerData: task });
    const uses = new Promise<SourceUse[]>((resolve, reject) => {
      worker.once("message", resolve);
      worker.once("error", reject);
      worker.once("exit", (code) => {
        reject(new Error(`The search ended with ${String(code)}.`));
      });
    });
    // The result is needed only if something has changed.
    uses.catch(() => undefined);
    worker.unref();
    this.begun.set(keyOf(root, parts), { worker, uses });
  }

  /** Returns the result of a search that was started; undefined if there is none, or if it failed. */
  async found({ root }: Project, parts: readonly SdkPart[]): Promise<SourceUse[] | undefined> {
    const key = keyOf(root, parts);
    const search = this.begun.get(key);
    if (!search) return undefined;
    this.begun.delete(key);
    // It stores what it compiled for the next run, which must be finished before this run ends.
    search.worker.ref();
    return search.uses.catch(() => undefined);
  }
}

function keyOf(root: string, parts: readonly SdkPart[]): string {
  return JSON.stringify([root, ...parts.map(({ sdk, contract }) => [sdk, contract])]);
}

function sizeOf(parts: readonly SdkPart[]): number {
  const files = parts.flatMap(({ folder }) =>
    existsSync(folder) ? (readdirSync(folder, { recursive: true }) as string[]).map((name) => join(folder, name)) : [],
  );
  return files.reduce((sum, path) => sum + statSync(path).size, 0);
}
