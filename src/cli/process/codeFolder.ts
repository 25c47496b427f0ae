import { existsSync } from "node:fs";
import { basename, dirname, join } from "node:path";
import { packageFolder } from "../../workspace/files/packageFolder.js";

/** Returns the folder in which other tools of the app cache files: next to the installed packages. */
export function codeFolder(): string | undefined {
  const folder = packageFolder();
  const packages = [dirname(folder), join(folder, "node_modules")].find((each) => basename(each) === "node_modules");
  return packages !== undefined && existsSync(packages) ? join(packages, ".cache", "rhema") : undefined;
}
