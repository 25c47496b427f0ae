// Prints the share of tests in the code, in lines that are not empty, and fails outside of 22 to 36 percent.
import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { fileURLToPath } from "node:url";

process.chdir(fileURLToPath(new URL("..", import.meta.url)));
const lowest = 22;
const highest = 36;
const files = execFileSync("git", ["ls-files", "-co", "--exclude-standard"], { encoding: "utf8" })
  .split("\n")
  .filter(
    (file) =>
      /^(src|runtimes|scripts|bench|truth|demo|test)\/.*\.(ts|tsx|mts|js|mjs|kt|java|swift)$/.test(file) &&
      !file.startsWith("test/fixtures/"),
  );
const lines = (file) =>
  readFileSync(file, "utf8")
    .split("\n")
    .filter((line) => line.trim() !== "").length;
const isTest = (file) => file.startsWith("test/") || /\.test\.[a-z]+$/.test(file);
const sum = (list) => list.reduce((total, file) => total + lines(file), 0);
const tests = sum(files.filter(isTest));
const all = sum(files);
const percent = (100 * tests) / all;
console.log(
  `ratio: ${tests} of ${all} lines are tests, ${percent.toFixed(1)} percent (${lowest} to ${highest} allowed)`,
);
if (percent < lowest || percent > highest) process.exitCode = 1;
