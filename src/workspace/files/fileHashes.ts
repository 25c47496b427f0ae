import { lstatSync, type BigIntStats } from "node:fs";
import { hashOf } from "./textFile.js";
import { textHash } from "./textHash.js";

/** Hashes of files on disk. In a process that continues to run, an unchanged file is not read again. */
export class FileHashes {
  private readonly seen = new Map<string, { readonly version: string; readonly hash: string }>();

  /** Returns the hash of a file's text with normalised line endings; undefined if the file does not exist. */
  of(path: string): string | undefined {
    const found = lookAt(path);
    if (found?.isFile() !== true) {
      this.seen.delete(path);
      return undefined;
    }
    const version = versionOf(found);
    const known = this.seen.get(path);
    if (known?.version === version) return known.hash;
    const hash = textHash(path);
    this.seen.set(path, { version, hash });
    return hash;
  }

  /**
   * Records the hash of a file that was just written, so that it is not read again.
   *
   * @param hash the hash of the text, with LF as line endings
   */
  remember(path: string, text: string, hash: string): void {
    const found = lookAt(path);
    // Another size: the file has already been changed.
    if (found?.isFile() === true && Number(found.size) === Buffer.byteLength(text))
      this.seen.set(path, { version: versionOf(found), hash });
  }
}

function lookAt(path: string): BigIntStats | undefined {
  try {
    return lstatSync(path, { bigint: true, throwIfNoEntry: false });
  } catch {
    // A parent folder is a file, or cannot be opened.
    return undefined;
  }
}

function versionOf({ ino, size, mtimeNs, ctimeNs }: BigIntStats): string {
  return `${String(ino)} ${String(size)} ${String(mtimeNs)} ${String(ctimeNs)}`;
}

/** Hashes of the files of the last SDKs. In a process that continues to run, most files stay the same. */
export class MadeHashes {
  private readonly bySdk = new Map<string, ReadonlyMap<string, { readonly text: string; readonly hash: string }>>();

  /**
   * Returns the SHA-256 of each file by path.
   *
   * @param folder the SDK's output folder
   */
  of(folder: string, files: ReadonlyMap<string, string>): Map<string, string> {
    const last = this.bySdk.get(folder);
    const made = new Map(
      [...files].map(([path, text]) => {
        const known = last?.get(path);
        return [path, known?.text === text ? known : { text, hash: hashOf(text) }];
      }),
    );
    // Files that the SDK no longer has are dropped.
    this.bySdk.set(folder, made);
    return new Map([...made].map(([path, { hash }]) => [path, hash]));
  }
}
