#!/usr/bin/env node
import { fileURLToPath } from "node:url";
import { setFlagsFromString } from "node:v8";
import { exitCodes } from "../workspace/project/halt.js";
import { build, version } from "../workspace/files/packageFolder.js";
import { CodeCache } from "./process/codeCache.js";
import { codeFolder } from "./process/codeFolder.js";
import { endWithStarter, hasRoom, runWithRoom } from "./process/roomier.js";

declare const RHEMA_PACKAGES: readonly string[];

/** Commands that run until they are ended, and the one that serves a contract for a moment. */
const runsOn = ["play", "watch", "observe", "try"].some((command) => ownWords().includes(command));

/**
 * A command runs for a second at most. In that time, early optimisation by V8 costs more than it saves (measured: a
 * third of a cold run on 1,000 operations). Code that stays hot is still optimised, only later.
 */
if (!runsOn && /^2[0-4]\./.test(process.versions.node)) setFlagsFromString("--interrupt-budget=300000");

/** Packages that are installed next to the program, because they are too large to be part of it. */
const packages = RHEMA_PACKAGES;

/** The version is printed without loading anything else. */
if (process.argv.length === 3 && (process.argv[2] === "--version" || process.argv[2] === "-V")) {
  process.stdout.write(`${version}\n`);
} else if (runsOn && !hasRoom()) {
  process.exitCode = await runWithRoom();
} else {
  if (runsOn) endWithStarter();
  // Node maps places in the program to its sources only if it loads the program itself.
  const isTraced = (process.env["RHEMA_DEBUG"] ?? "0") !== "0";
  if (isTraced) process.setSourceMapsEnabled(true);
  const cache = new CodeCache(isTraced ? undefined : codeFolder(), build, commandName(process.argv.slice(2)));
  const file = fileURLToPath(new URL("program.cjs", import.meta.url));
  const program = cache.load(file, packages) as typeof import("./program.js");
  const importer = (url: string): Promise<unknown> => import(url) as Promise<unknown>;
  process.exitCode = await program.runProgram(process.argv.slice(2), program.processHost(importer));
  if (process.exitCode === exitCodes.done || process.exitCode === exitCodes.findings) cache.save();
}

/** The arguments, without those of another command. */
function ownWords(): string[] {
  const words = process.argv.slice(2);
  const at = words.indexOf("--");
  return at < 0 ? words : words.slice(0, at);
}

/** The command among the arguments, as a word for a file name. */
function commandName(args: readonly string[]): string {
  const first = args.find((each) => !each.startsWith("-")) ?? "";
  return /^[a-z]{1,20}$/.test(first) ? first : "program";
}
