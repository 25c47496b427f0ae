import { spawnSync } from "node:child_process";
import { existsSync } from "node:fs";
import { join } from "node:path";
import { packageFolder } from "../../files/packageFolder.js";

/** A program to start, and what it is given. */
export interface Command {
  readonly command: string;
  readonly args: readonly string[];
}

/** Gives a command some folders of this machine inside the folder that has the compiler; its mounts go when it ends. */
const inside = [
  'root="$0"; home="$1"',
  'mount -t proc proc "$root/proc"',
  'while [ "$1" != -- ]; do mkdir -p "$root$1"; mount --bind "$1" "$root$1"; shift; done; shift',
  'exec chroot "$root" env HOME="$home" LD_LIBRARY_PATH=/usr/libexec/swift/lib/swift/linux "$@"',
].join("; ");

/**
 * Finds a Swift compiler: the machine's own one if it knows Swift 6, else the one that this checkout got for its tests.
 *
 * @returns what makes a command run where the compiler is; nothing when there is none
 */
export function swiftToolchain(): ((command: readonly string[], folders: readonly string[]) => Command) | undefined {
  const version = /Swift version (\d+)/.exec(String(spawnSync("swiftc", ["--version"]).stdout));
  if (Number(version?.[1]) >= 6) return ([command = "", ...args]) => ({ command, args });
  const root = join(packageFolder(), ".toolchains", "swift", "root");
  // Only root may mount the folders of this machine inside the compiler's.
  if (!existsSync(join(root, "..", "packages")) || process.getuid?.() !== 0) return undefined;
  return (command, folders) => ({
    command: "unshare",
    args: ["-m", "sh", "-c", inside, root, ...folders, "--", ...command],
  });
}
