import { existsSync, lstatSync, readFileSync, type BigIntStats } from "node:fs";
import { hashOf, normalized } from "./textFile.js";

/** Hashes of files on disk. In a process that runs on, a file that nobody touched since is not read again. */
export class FileHashes {
  private readonly seen = new Map<string, { readonly version: string; readonly hash: string }>();

  /** The hash of a file's text with line ends normalised; undefined when there is no such file. */
  of(path: string): string | undefined {
    // A file where one of its folders should be makes looking at it an error, so that comes first.
    const found = existsSync(path) ? lstatSync(path, { bigint: true }) : undefined;
    if (found?.isFile() !== true) {
      this.seen.delete(path);
      return undefined;
    }
    const version = versionOf(found);
    const known = this.seen.get(path);
    if (known?.version === version) return known.hash;
    const hash = hashOf(normalized(readFileSync(path, "utf8")));
    this.seen.set(path, { version, hash });
    return hash;
  }

  /**
   * Spares reading a file again that was just written.
   *
   * @param hash of the text that was written, its line ends as LF
   */
  remember(path: string, text: string, hash: string): void {
    const found = lstatSync(path, { bigint: true, throwIfNoEntry: false });
    // Another size: somebody else was there already.
    if (found?.isFile() === true && Number(found.size) === Buffer.byteLength(text))
      this.seen.set(path, { version: versionOf(found), hash });
  }
}

function versionOf({ ino, size, mtimeNs, ctimeNs }: BigIntStats): string {
  return `${String(ino)} ${String(size)} ${String(mtimeNs)} ${String(ctimeNs)}`;
}

/** Hashes of the files that SDKs were last made of. In a process that runs on, most files are what they were before. */
export class MadeHashes {
  private readonly bySdk = new Map<string, ReadonlyMap<string, { readonly text: string; readonly hash: string }>>();

  /**
   * @param folder that the SDK is written to
   * @returns the SHA-256 of each file by path
   */
  of(folder: string, files: ReadonlyMap<string, string>): Map<string, string> {
    const last = this.bySdk.get(folder);
    const made = new Map(
      [...files].map(([path, text]) => {
        const known = last?.get(path);
        return [path, known?.text === text ? known : { text, hash: hashOf(text) }];
      }),
    );
    // What an SDK no longer has is forgotten.
    this.bySdk.set(folder, made);
    return new Map([...made].map(([path, { hash }]) => [path, hash]));
  }
}
