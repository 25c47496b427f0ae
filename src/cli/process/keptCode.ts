import { createHash } from "node:crypto";
import { mkdirSync, readFileSync, renameSync, writeFileSync } from "node:fs";
import { dirname } from "node:path";

/** The code that V8 compiled from a file in an earlier run, and how long that run took, in milliseconds. */
export interface KeptCode {
  readonly code: Buffer;
  readonly elapsedMs: number;
}

const digestBytes = 64;
const headBytes = digestBytes + 8;

/**
 * Reads compiled code.
 *
 * @param about what the code was compiled from and for
 * @returns undefined if there is none for exactly that, or if it is damaged: V8 would run it anyway
 */
export function readKeptCode(path: string, about: string): KeptCode | undefined {
  try {
    const bytes = readFileSync(path);
    const rest = bytes.subarray(digestBytes);
    if (!bytes.subarray(0, digestBytes).equals(digestOf(about, rest))) return undefined;
    return { code: bytes.subarray(headBytes), elapsedMs: rest.readDoubleLE(0) };
  } catch {
    return undefined;
  }
}

/**
 * Writes compiled code completely or not at all.
 *
 * @param make returns the code; called only if the file can be written
 * @throws an error of the file system
 */
export function writeKeptCode(path: string, about: string, make: () => KeptCode): void {
  mkdirSync(dirname(path), { recursive: true });
  const unfinished = `${path}.${String(process.pid)}`;
  writeFileSync(unfinished, "");
  const { code, elapsedMs } = make();
  const rest = Buffer.alloc(8 + code.length);
  rest.writeDoubleLE(elapsedMs, 0);
  code.copy(rest, 8);
  writeFileSync(unfinished, Buffer.concat([digestOf(about, rest), rest]));
  renameSync(unfinished, path);
}

/** BLAKE2 takes a third of the time of SHA-256, in every run. */
function digestOf(about: string, rest: Buffer): Buffer {
  return createHash("blake2b512").update(`${about}\n`).update(rest).digest();
}
