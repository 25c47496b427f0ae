#!/usr/bin/env node
import { setFlagsFromString } from "node:v8";
import { version } from "../workspace/packageFolder.js";

/**
 * A command runs for a second at most, in which code that V8 optimises early never earns back what optimising it costs
 * (measured: a third of a cold run on 1,000 operations). Code that stays hot is optimised all the same, only later.
 */
if (/^2[0-4]\./.test(process.versions.node)) setFlagsFromString("--interrupt-budget=300000");

/** Asking for the version loads nothing else. */
if (process.argv.length === 3 && (process.argv[2] === "--version" || process.argv[2] === "-V")) {
  process.stdout.write(`${version}\n`);
} else {
  const { runProgram } = await import("./program.js");
  process.exitCode = await runProgram(process.argv.slice(2));
}
