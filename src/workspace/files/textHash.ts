import { closeSync, openSync, readSync } from "node:fs";
import { hashOf, normalized } from "./textFile.js";

/**
 * Returns the SHA-256 of a file's text, as `readText` returns it.
 *
 * @throws the file system's error
 */
export function textHash(path: string): string {
  const bytes = bytesOf(path);
  // Text without a byte order mark and without CR is hashed as it is, because making a string of it takes longer.
  const isPlain = bytes[0] !== 0xef && !bytes.includes(0x0d);
  return hashOf(isPlain ? bytes : normalized(bytes.toString("utf8")));
}

/** Every file is read into the same memory. New memory for each of a thousand files takes as long as reading them. */
let room = Buffer.alloc(0);

/** Reads a file. The bytes are valid until the next call. */
function bytesOf(path: string): Buffer {
  const file = openSync(path, "r");
  try {
    let length = 0;
    for (;;) {
      if (length === room.length) room = Buffer.concat([room], Math.max(2 * length, 1_000_000));
      const read = readSync(file, room, length, room.length - length, null);
      if (read === 0) return room.subarray(0, length);
      length += read;
    }
  } finally {
    closeSync(file);
  }
}
