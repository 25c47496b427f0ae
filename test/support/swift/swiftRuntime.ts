import { join } from "node:path";
import { runtimeSources } from "../../../src/workspace/generate/runtimeSources.js";
import { packageRoot } from "../packageRoot.js";

/** The runtime of Swift SDKs: sources by file name. */
export const swiftRuntime: ReadonlyMap<string, string> = runtimeSources(join(packageRoot, "runtimes/swift/wire"));
