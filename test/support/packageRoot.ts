import { join } from "node:path";
import { fileURLToPath } from "node:url";

export const packageRoot = fileURLToPath(new URL("../..", import.meta.url));
/** The built program, for a process of its own. */
export const programPath = join(packageRoot, "dist/cli/main.js");
