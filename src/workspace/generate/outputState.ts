import { existsSync, lstatSync, readdirSync } from "node:fs";
import { join } from "node:path";
import type { FileHashes } from "../files/fileHashes.js";
import type { LedgerEntry } from "./ledger.js";

/** What stands in an SDK's folder, measured against the ledger. Content counts; size and time do not. */
export interface OutputState {
  /** Ledger files whose content is what Rhema wrote. */
  readonly intact: readonly string[];
  /** Ledger files changed by hand. */
  readonly edited: readonly string[];
  /** Ledger files that are gone. */
  readonly missing: readonly string[];
}

/** The hashes of a folder's files as they are now, each looked up once; undefined where there is no file. */
export type FolderHashes = (path: string) => string | undefined;

/** Returns a function that gives the SHA-256 of a file in a folder, by its path inside the folder; undefined if the file does not exist. */
export function folderHashes(folder: string, files: FileHashes): FolderHashes {
  const known = new Map<string, string | undefined>();
  return (path) => {
    if (!known.has(path)) known.set(path, files.of(join(folder, path)));
    return known.get(path);
  };
}

/** @param hashes of the folder the entry is about */
export function outputState(hashes: FolderHashes, entry: LedgerEntry | undefined): OutputState {
  const intact: string[] = [];
  const edited: string[] = [];
  const missing: string[] = [];
  for (const [path, hash] of Object.entries(entry?.files ?? {})) {
    const found = hashes(path);
    if (found === undefined) missing.push(path);
    else if (found === hash) intact.push(path);
    else edited.push(path);
  }
  return { intact, edited, missing };
}

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
