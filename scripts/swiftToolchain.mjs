// Installs a Swift compiler in .toolchains/swift if the machine has none: Debian packages one for its release trixie,
// which also runs in a folder of its own on older releases.
import { execFileSync, spawnSync } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";

const release = "trixie";
const packages = ["swiftlang", "ca-certificates", "libc6-dev", "libstdc++-14-dev", "gcc"];

/** The source of apt's packages, from the machine's own settings; undefined if there is none. */
function mirror() {
  const folder = "/etc/apt/sources.list.d";
  const files = [
    "/etc/apt/sources.list",
    ...(existsSync(folder) ? readdirSync(folder).map((file) => join(folder, file)) : []),
  ];
  for (const file of files.filter((each) => existsSync(each))) {
    const found = /^(?:URIs:|deb(?:\s+\[[^\]]*\])?)\s+(\S+\/debian)\/?(?:\s|$)/m.exec(readFileSync(file, "utf8"));
    if (found) return found[1];
  }
  return undefined;
}

/** The version of a working compiler, as "6.0.3"; undefined if there is none that is new enough. */
function versionOf(command, ...given) {
  try {
    const text = execFileSync(command, [...given, "--version"], {
      encoding: "utf8",
      stdio: ["ignore", "pipe", "ignore"],
    });
    const version = /Swift version (\d+)\.(\d+)(?:\.\d+)?/.exec(text);
    return version && Number(version[1]) >= 6 ? version[0].slice("Swift version ".length) : undefined;
  } catch {
    return undefined;
  }
}

function has(command) {
  try {
    execFileSync("sh", ["-c", `command -v ${command}`], { stdio: "ignore" });
    return true;
  } catch {
    return false;
  }
}

/**
 * Finds a Swift compiler, and installs one if there is none.
 *
 * @param folder the folder of the toolchain
 * @param onlyChecks whether nothing is fetched
 * @returns what was found, in words; undefined if there is none
 */
export function swiftToolchain(folder, onlyChecks) {
  const own = versionOf("swiftc");
  if (own) return `${own}, the machine's own`;
  const root = join(folder, "root");
  const finished = join(folder, "packages");
  const wanted = `${release}: ${packages.join(" ")}\n`;
  const isThere = existsSync(finished) && readFileSync(finished, "utf8") === wanted;
  const from = mirror();
  if (!isThere && !onlyChecks && process.getuid?.() === 0 && has("debootstrap") && from) {
    rmSync(folder, { recursive: true, force: true });
    mkdirSync(folder, { recursive: true });
    const given = ["--variant=minbase", `--include=${packages.join(",")}`, release, root, from];
    const { status, stdout } = spawnSync("debootstrap", given, {
      encoding: "utf8",
      stdio: ["ignore", "pipe", "inherit"],
    });
    if (status !== 0) {
      console.log(stdout.split("\n").slice(-6).join("\n"));
      return undefined;
    }
    rmSync(join(root, "var/cache/apt/archives"), { recursive: true, force: true });
    writeFileSync(finished, wanted);
  }
  // The compiler finds its parts through the kernel's files about processes.
  const inside =
    'mount -t proc proc "$0/proc"; exec chroot "$0" env LD_LIBRARY_PATH=/usr/libexec/swift/lib/swift/linux swiftc "$@"';
  return existsSync(finished) ? versionOf("unshare", "-m", "sh", "-c", inside, root) : undefined;
}
