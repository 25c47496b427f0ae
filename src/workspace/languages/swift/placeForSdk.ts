import { existsSync, readFileSync, readdirSync } from "node:fs";
import { join } from "node:path";
import type { PlaceForSdk } from "../languageTools.js";

/**
 * Returns the place of an SDK in a Swift project: the sources of a package's first target, or the folder of an Xcode
 * project's app.
 *
 * @param root the absolute path of the project
 * @param sdk the SDK's name in the configuration
 */
export function placeForSdk(root: string, sdk: string): PlaceForSdk {
  const target = packageTarget(root) ?? xcodeTarget(root);
  return { into: `${target ?? "Sources"}/${sdk}`, settings: {} };
}

/** The folder of the first target in a `Package.swift`; undefined if there is none. */
function packageTarget(root: string): string | undefined {
  const file = join(root, "Package.swift");
  if (!existsSync(file)) return undefined;
  const text = readFileSync(file, "utf8").replace(/\/\/.*$/gm, "");
  const [, name, rest = ""] = /\.(?:target|executableTarget)\s*\(\s*name:\s*"([^"\\]+)"([\s\S]*)/.exec(text) ?? [];
  if (name === undefined) return undefined;
  // The text up to the next target belongs to this one.
  const [own = ""] = rest.split(/\.(?:target|executableTarget|testTarget|plugin|macro)\s*\(/);
  const [, path] = /\bpath:\s*"([^"\\]+)"/.exec(own) ?? [];
  return path ?? `Sources/${name}`;
}

/** The folder of an Xcode project with the project's name; undefined if there is none. */
function xcodeTarget(root: string): string | undefined {
  const [project] = readdirSync(root).filter((name) => name.endsWith(".xcodeproj"));
  const name = project?.replace(/\.xcodeproj$/, "");
  return name !== undefined && existsSync(join(root, name)) ? name : undefined;
}
