// Makes a fresh clone ready: installs dependencies, builds what is missing or older than its sources, and reports that.
import { execFileSync } from "node:child_process";
import { existsSync, readdirSync, statSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath } from "node:url";

process.chdir(fileURLToPath(new URL("..", import.meta.url)));
const npm = process.env.npm_execpath
  ? [process.execPath, [process.env.npm_execpath]]
  : [process.platform === "win32" ? "npm.cmd" : "npm", []];

function run(label, command, args) {
  console.log(`ready: ${label}`);
  execFileSync(command, args, { stdio: ["ignore", "inherit", "inherit"] });
}

function newest(path) {
  if (!existsSync(path)) return 0;
  const found = statSync(path);
  if (!found.isDirectory()) return found.mtimeMs;
  return Math.max(found.mtimeMs, ...readdirSync(path).map((name) => newest(join(path, name))));
}

const installed = "node_modules/.package-lock.json";
if (!existsSync(installed) || newest("package-lock.json") > newest(installed)) {
  run("installing dependencies (npm ci)", npm[0], [...npm[1], "ci", "--no-audit", "--no-fund"]);
}
const built = newest("dist/cli/main.js");
if (["src", "schema", "scripts/build.mjs", "package.json", "tsconfig.json"].some((path) => newest(path) > built)) {
  run("building the program", process.execPath, ["scripts/build.mjs"]);
}
