import { existsSync, lstatSync, readdirSync, readFileSync, type BigIntStats } from "node:fs";
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

/** The hashes of a folder's files as they are now, each looked up once; undefined where there is no file. */
export type FolderHashes = (path: string) => string | undefined;

export function folderHashes(folder: string): FolderHashes {
  const known = new Map<string, string | undefined>();
  return (path) => {
    if (!known.has(path)) known.set(path, fileHash(join(folder, path)));
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

/** The hash of a file's text with line ends normalised; undefined when there is no such file. */
export function fileHash(path: string): string | undefined {
  // A file where one of its folders should be makes looking at it an error, so that comes first.
  const found = existsSync(path) ? lstatSync(path, { bigint: true }) : undefined;
  if (found?.isFile() !== true) return undefined;
  // In a process that runs on, a file that nobody touched since is not read again.
  const version = versionOf(found);
  const known = seenHashes.get(path);
  if (known?.version === version) return known.hash;
  const hash = hashOf(normalized(readFileSync(path, "utf8")));
  seenHashes.set(path, { version, hash });
  return hash;
}

const seenHashes = new Map<string, { readonly version: string; readonly hash: string }>();

function versionOf({ ino, size, mtimeNs, ctimeNs }: BigIntStats): string {
  return `${String(ino)} ${String(size)} ${String(mtimeNs)} ${String(ctimeNs)}`;
}

/**
 * Spares a process that runs on reading a file again which it just wrote.
 *
 * @param hash of the text that was written, its line ends as LF
 */
export function rememberHash(path: string, text: string, hash: string): void {
  const found = lstatSync(path, { bigint: true, throwIfNoEntry: false });
  // Another size: somebody else was there already.
  if (found?.isFile() === true && Number(found.size) === Buffer.byteLength(text))
    seenHashes.set(path, { version: versionOf(found), hash });
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
