#!/usr/bin/env node
import { version } from "../workspace/packageFolder.js";

/** Asking for the version loads nothing else. */
if (process.argv.length === 3 && (process.argv[2] === "--version" || process.argv[2] === "-V")) {
  process.stdout.write(`${version}\n`);
} else {
  const { runProgram } = await import("./program.js");
  process.exitCode = await runProgram(process.argv.slice(2));
}
