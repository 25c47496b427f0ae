import { readFileSync, readdirSync } from "node:fs";
import { join } from "node:path";
import { packageRoot } from "../packageRoot.js";

const folder = join(packageRoot, "runtimes/swift/wire");

/** The runtime of Swift SDKs: sources by file name. */
export const swiftRuntime: ReadonlyMap<string, string> = new Map(
  readdirSync(folder).map((file) => [file, readFileSync(join(folder, file), "utf8")]),
);
