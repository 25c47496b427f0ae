import { join } from "node:path";
import { runtimeSources } from "../../../src/workspace/generate/runtimeSources.js";
import { packageRoot } from "../packageRoot.js";

/** The runtime of Kotlin SDKs: sources by file name. */
export const kotlinRuntime: ReadonlyMap<string, string> = runtimeSources(join(packageRoot, "runtimes/kotlin/wire"));
