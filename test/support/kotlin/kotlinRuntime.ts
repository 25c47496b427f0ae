import { readFileSync, readdirSync } from "node:fs";
import { join } from "node:path";
import { packageRoot } from "../packageRoot.js";

const folder = join(packageRoot, "runtimes/kotlin/wire");

/** The runtime of Kotlin SDKs: sources by file name. */
export const kotlinRuntime: ReadonlyMap<string, string> = new Map(
  readdirSync(folder).map((file) => [file, readFileSync(join(folder, file), "utf8")]),
);
