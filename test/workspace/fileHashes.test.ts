import { mkdirSync, mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { describe, expect, it } from "vitest";
import { FileHashes } from "../../src/workspace/files/fileHashes.js";
import { hashAside, hashOf } from "../../src/workspace/files/textFile.js";

const folder = mkdtempSync(join(tmpdir(), "rhema-hashes-"));

describe("the hash of a file", () => {
  it.each([
    ["as it is", "a\nb\n", "a\nb\n"],
    ["with other line endings", "a\r\nb\r\n", "a\nb\n"],
    ["with a byte order mark", "\ufeffa\n", "a\n"],
    ["with both", "\ufeffa\r\nb", "a\nb"],
    ["with CR inside a line", "a\rb\n", "a\rb\n"],
    ["with letters of other scripts", "ï»\u00bf ærø \u{1f6a2}\r\n", "ï»\u00bf ærø \u{1f6a2}\n"],
    ["that begins like a byte order mark", "\ufeca\n", "\ufeca\n"],
    ["without content", "", ""],
  ])("is that of its text: %s", (name, written, text) => {
    const path = join(folder, name);
    writeFileSync(path, written);
    expect(new FileHashes().of(path)).toBe(hashOf(text));
  });

  it("is that of its text, whatever its size and that of the file before it", () => {
    const hashes = new FileHashes();
    const texts = ["a", "b".repeat(2_500_000), "", "c".repeat(1_000_000), "d".repeat(999_999)];
    for (const [at, text] of texts.entries()) {
      const path = join(folder, `size ${String(at)}`);
      writeFileSync(path, text);
      expect(hashes.of(path)).toBe(hashOf(text));
    }
  });

  it("is found again when the file has changed", () => {
    const path = join(folder, "changing");
    const hashes = new FileHashes();
    writeFileSync(path, "a");
    expect(hashes.of(path)).toBe(hashOf("a"));
    writeFileSync(path, "bb");
    expect(hashes.of(path)).toBe(hashOf("bb"));
  });

  it("does not exist without a file", () => {
    mkdirSync(join(folder, "inner"));
    writeFileSync(join(folder, "plain"), "a");
    const hashes = new FileHashes();
    for (const path of ["missing", "inner", "plain/below"]) expect(hashes.of(join(folder, path))).toBeUndefined();
  });
});

it("a text has the same hash on another thread, whatever its size", async () => {
  const half = "\ud83d";
  for (const text of ["", "a", `${"berth ærø \u{1f6a2}\n".repeat(200_000)}${half}`])
    expect(await hashAside(text)).toBe(hashOf(text));
});
