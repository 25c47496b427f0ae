import { existsSync, lstatSync, readdirSync } from "node:fs";
import { join } from "node:path";
import type { FileHashes } from "../files/fileHashes.js";
import type { LedgerEntry } from "./ledger.js";

/**
 * The state of an SDK's folder, compared with the list of generated files. The content counts; size and time do not.
 */
export interface OutputState {
  /** Listed files with the content that Rhema wrote. */
  readonly intact: readonly string[];
  /** Listed files that were edited manually. */
  readonly edited: readonly string[];
  /** Listed files that do not exist. */
  readonly missing: readonly string[];
}

/** Returns the current hash of a file in a folder, computed once; undefined if there is no file. */
export type FolderHashes = (path: string) => string | undefined;

/** Returns a function that gives the SHA-256 of a file in a folder, by its path inside the folder; undefined if the file does not exist. */
export function folderHashes(folder: string, files: FileHashes): FolderHashes {
  const known = new Map<string, string | undefined>();
  return (path) => {
    if (!known.has(path)) known.set(path, files.of(join(folder, path)));
    return known.get(path);
  };
}

/**
 * Compares a folder with its entry in the list.
 *
 * @param hashes the hashes of the entry's folder
 */
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

/** Returns files in a folder that Rhema did not write, by path, as far as needed to know whether there are any. */
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
