import { fileURLToPath } from "node:url";
import { parentPort, workerData } from "node:worker_threads";
import { build } from "../workspace/files/packageFolder.js";
import type { UseTask } from "../workspace/uses/useTask.js";
import { CodeCache } from "./process/codeCache.js";
import { codeFolder } from "./process/codeFolder.js";

declare const RHEMA_PACKAGES: readonly string[];

/** A thread that searches for an app's uses of its SDKs, and reports them once. */
const cache = new CodeCache(codeFolder(), build, "uses");
const file = fileURLToPath(new URL("program.cjs", import.meta.url));
const program = cache.load(file, RHEMA_PACKAGES) as typeof import("./program.js");
const importer = (url: string): Promise<unknown> => import(url) as Promise<unknown>;
parentPort?.postMessage(await program.usesOfTask(workerData as UseTask, importer));
cache.save();
