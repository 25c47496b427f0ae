import { spawn } from "node:child_process";
import { mkdirSync, mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { swiftToolchain } from "../../../src/workspace/languages/swift/toolchain.js";
import { packageRoot } from "../packageRoot.js";

const toolchain = swiftToolchain();

/** Returns whether there is a Swift compiler; `node scripts/toolchains.mjs` installs it. */
export const hasSwift = toolchain !== undefined;

/**
 * Reports what is left out without a compiler. A run that must be complete fails instead.
 *
 * @returns whether there is one
 */
export function canCompileSwift(what: string): boolean {
  if (hasSwift) return true;
  if (process.env["CI"] === "true") throw new Error(`There is no Swift compiler: ${what} cannot be tested.`);
  process.stderr.write(`Left out, because there is no Swift compiler (node scripts/toolchains.mjs gets it): ${what}\n`);
  return false;
}

/** The result of a command. */
export interface SwiftResult {
  readonly isFine: boolean;
  readonly printed: string;
}

/** Runs a command that needs the Swift toolchain. @param input its standard input. Default: nothing */
export function runSwift(command: readonly string[], input = ""): Promise<SwiftResult> {
  if (!toolchain) throw new Error("There is no Swift compiler.");
  const { command: name, args } = toolchain(command, [tmpdir(), packageRoot]);
  return new Promise((resolve) => {
    const running = spawn(name, args, { stdio: "pipe" });
    let printed = "";
    for (const stream of [running.stdout, running.stderr])
      stream.on("data", (text: Buffer) => {
        printed += text.toString();
      });
    running.on("error", ({ message }) => {
      resolve({ isFine: false, printed: message });
    });
    running.on("close", (code) => {
      resolve({ isFine: code === 0, printed });
    });
    running.stdin.end(input);
  });
}

/** A temporary folder with sources. */
export function writtenSwift(files: ReadonlyMap<string, string>): string {
  const folder = mkdtempSync(join(tmpdir(), "swift-"));
  for (const [path, text] of files) {
    const whole = join(folder, path);
    mkdirSync(dirname(whole), { recursive: true });
    writeFileSync(whole, text);
  }
  return folder;
}

/**
 * Compiles a program and returns its path.
 *
 * @param files sources by path, with a `main.swift`
 * @param isStrict whether warnings are errors
 * @param isFast whether the program is optimised, which takes longer to compile
 */
export async function compileSwift(
  files: ReadonlyMap<string, string>,
  { isStrict = true, isFast = false }: { readonly isStrict?: boolean; readonly isFast?: boolean } = {},
): Promise<SwiftResult & { readonly program: string }> {
  const folder = writtenSwift(files);
  const program = join(folder, "program");
  const sources = [...files.keys()].map((path) => join(folder, path));
  const how = [...(isStrict ? ["-warnings-as-errors"] : ["-suppress-warnings"]), ...(isFast ? ["-O"] : [])];
  const result = await runSwift(["swiftc", "-swift-version", "6", "-wmo", ...how, ...sources, "-lm", "-o", program]);
  return { ...result, program };
}
