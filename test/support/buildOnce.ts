import { execFileSync, spawnSync } from "node:child_process";
import { fileURLToPath } from "node:url";
import { chromium } from "./chromium.js";
import { pseudoTerminal } from "./pseudoTerminal.js";

/** Tests of the program use the built program, so it is built before any test if its sources are newer. */
export default function setup(): void {
  execFileSync(process.execPath, [fileURLToPath(new URL("../../scripts/ready.mjs", import.meta.url))], {
    stdio: "inherit",
  });
  const lacking = [
    ...(chromium === undefined ? ["tests in a browser (no Chromium)"] : []),
    ...(pseudoTerminal === undefined ? ["tests on a terminal (no `script`)"] : []),
    ...(spawnSync("git", ["--version"]).status === 0 ? [] : ["tests of revisions (no git)"]),
  ];
  if (lacking.length > 0) process.stdout.write(`left out: ${lacking.join(", ")}\n`);
}
