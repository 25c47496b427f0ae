import { existsSync, readFileSync, readdirSync } from "node:fs";
import { join } from "node:path";
import type { PlaceForSdk } from "../languageTools.js";

/**
 * Where an SDK goes in a Swift project: among the sources of the first target of a package, or in the folder of an Xcode
 * project's app.
 *
 * @param sdk the SDK's name in the configuration
 */
export function placeForSdk(root: string, sdk: string): PlaceForSdk {
  const target = packageTarget(root) ?? xcodeTarget(root);
  return { into: `${target ?? "Sources"}/${sdk}`, settings: {} };
}

/** The folder of the first target that a `Package.swift` declares; undefined where there is none. */
function packageTarget(root: string): string | undefined {
  const file = join(root, "Package.swift");
  if (!existsSync(file)) return undefined;
  const text = readFileSync(file, "utf8").replace(/\/\/.*$/gm, "");
  const [, name, rest = ""] = /\.(?:target|executableTarget)\s*\(\s*name:\s*"([^"\\]+)"([\s\S]*)/.exec(text) ?? [];
  if (name === undefined) return undefined;
  // What follows belongs to the target up to the next one.
  const [own = ""] = rest.split(/\.(?:target|executableTarget|testTarget|plugin|macro)\s*\(/);
  const [, path] = /\bpath:\s*"([^"\\]+)"/.exec(own) ?? [];
  return path ?? `Sources/${name}`;
}

/** The folder of an Xcode project that is called as the project is; undefined where there is none. */
function xcodeTarget(root: string): string | undefined {
  const [project] = readdirSync(root).filter((name) => name.endsWith(".xcodeproj"));
  const name = project?.replace(/\.xcodeproj$/, "");
  return name !== undefined && existsSync(join(root, name)) ? name : undefined;
}
