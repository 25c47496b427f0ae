#!/usr/bin/env node
import { setFlagsFromString } from "node:v8";
import { version } from "../workspace/packageFolder.js";
import { endWithStarter, hasRoom, runWithRoom } from "./roomier.js";

/** Commands that run on until somebody ends them, and the one that plays a contract for a moment. */
const runsOn = ["play", "watch", "observe", "try"].some((command) => process.argv.slice(2).includes(command));

/**
 * A command runs for a second at most, in which code that V8 optimises early never earns back what optimising it costs
 * (measured: a third of a cold run on 1,000 operations). Code that stays hot is optimised all the same, only later.
 */
if (!runsOn && /^2[0-4]\./.test(process.versions.node)) setFlagsFromString("--interrupt-budget=300000");

/** Asking for the version loads nothing else. */
if (process.argv.length === 3 && (process.argv[2] === "--version" || process.argv[2] === "-V")) {
  process.stdout.write(`${version}\n`);
} else if (runsOn && !hasRoom()) {
  process.exitCode = await runWithRoom();
} else {
  if (runsOn) endWithStarter();
  const { runProgram } = await import("./program.js");
  process.exitCode = await runProgram(process.argv.slice(2));
}
