import { existsSync, lstatSync, readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import type { LedgerEntry } from "./ledger.js";
import { hashOf, normalized } from "./textFile.js";

/** What stands in an SDK's folder, measured against the ledger. Content counts; size and time do not. */
export interface OutputState {
  /** Ledger files whose content is what Rhema wrote. */
  readonly intact: readonly string[];
  /** Ledger files changed by hand. */
  readonly edited: readonly string[];
  /** Ledger files that are gone. */
  readonly missing: readonly string[];
}

export function outputState(folder: string, entry: LedgerEntry | undefined): OutputState {
  const intact: string[] = [];
  const edited: string[] = [];
  const missing: string[] = [];
  for (const [path, hash] of Object.entries(entry?.files ?? {})) {
    const found = fileHash(join(folder, path));
    if (found === undefined) missing.push(path);
    else if (found === hash) intact.push(path);
    else edited.push(path);
  }
  return { intact, edited, missing };
}

/** The hash of a file's text with line ends normalised; undefined when there is no such file. */
export function fileHash(path: string): string | undefined {
  // A file where one of its folders should be makes looking at it an error, so that comes first.
  const found = existsSync(path) ? lstatSync(path, { bigint: true }) : undefined;
  if (found?.isFile() !== true) return undefined;
  // In a process that runs on, a file that nobody touched since is not read again.
  const version = `${String(found.ino)} ${String(found.size)} ${String(found.mtimeNs)} ${String(found.ctimeNs)}`;
  const known = hashes.get(path);
  if (known?.version === version) return known.hash;
  const hash = hashOf(normalized(readFileSync(path, "utf8")));
  hashes.set(path, { version, hash });
  return hash;
}

const hashes = new Map<string, { readonly version: string; readonly hash: string }>();

/** Files in a folder by path, as far as needed to know whether anything is there that Rhema did not write. */
export function foreignFiles(folder: string, entry: LedgerEntry | undefined): string[] {
  if (!existsSync(folder)) return [];
  if (!lstatSync(folder).isDirectory()) return ["."];
  const known = new Set(Object.keys(entry?.files ?? {}));
  return readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((item) => !item.isDirectory())
    .map((item) =>
      join(item.parentPath, item.name)
        .slice(folder.length + 1)
        .replaceAll("\\", "/"),
    )
    .filter((path) => !known.has(path))
    .sort();
}
