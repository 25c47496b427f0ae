import { existsSync } from "node:fs";
import { basename, dirname, join } from "node:path";
import { packageFolder } from "../../workspace/files/packageFolder.js";

/** Where other tools of the app keep what they can make again: beside the installed packages. */
export function codeFolder(): string | undefined {
  const folder = packageFolder();
  const packages = [dirname(folder), join(folder, "node_modules")].find((each) => basename(each) === "node_modules");
  return packages !== undefined && existsSync(packages) ? join(packages, ".cache", "rhema") : undefined;
}
