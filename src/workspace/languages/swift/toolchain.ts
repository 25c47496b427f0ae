import { spawnSync } from "node:child_process";
import { existsSync } from "node:fs";
import { join } from "node:path";
import { packageFolder } from "../../files/packageFolder.js";

/** A program to start, with its arguments. */
export interface Command {
  readonly command: string;
  readonly args: readonly string[];
}

/**
 * Mounts some folders of this machine inside the folder with the compiler, for one command. The mounts end with the
 * command.
 */
const inside = [
  'root="$0"; home="$1"',
  'mount -t proc proc "$root/proc"',
  'while [ "$1" != -- ]; do mkdir -p "$root$1"; mount --bind "$1" "$root$1"; shift; done; shift',
  'exec chroot "$root" env HOME="$home" LD_LIBRARY_PATH=/usr/libexec/swift/lib/swift/linux "$@"',
].join("; ");

/**
 * Finds a Swift compiler: the machine's own if it supports Swift 6, otherwise the one that this checkout installed for
 * its tests.
 *
 * @returns a function that makes a command run where the compiler is; undefined if there is none
 */
export function swiftToolchain(): ((command: readonly string[], folders: readonly string[]) => Command) | undefined {
  const version = /Swift version (\d+)/.exec(String(spawnSync("swiftc", ["--version"]).stdout));
  if (Number(version?.[1]) >= 6) return ([command = "", ...args]) => ({ command, args });
  const root = join(packageFolder(), ".toolchains", "swift", "root");
  // Only root may mount folders of this machine inside the compiler's folder.
  if (!existsSync(join(root, "..", "packages")) || process.getuid?.() !== 0) return undefined;
  return (command, folders) => ({
    command: "unshare",
    args: ["-m", "sh", "-c", inside, root, ...folders, "--", ...command],
  });
}
