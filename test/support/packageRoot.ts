import { join } from "node:path";
import { fileURLToPath } from "node:url";

export const packageRoot = fileURLToPath(new URL("../..", import.meta.url));
/** The built program, as a process of its own starts it. */
export const programPath = join(packageRoot, "dist/cli/main.js");
