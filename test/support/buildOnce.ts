import { execFileSync } from "node:child_process";
import { fileURLToPath } from "node:url";

/** End-to-end tests drive the built program, so it is built before any test when its sources are newer. */
export default function setup(): void {
  execFileSync(process.execPath, [fileURLToPath(new URL("../../scripts/ready.mjs", import.meta.url))], {
    stdio: "inherit",
  });
}
