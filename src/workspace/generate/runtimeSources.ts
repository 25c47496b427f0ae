import { readdirSync, readFileSync } from "node:fs";
import { join, relative } from "node:path";
import { sortedBy } from "../../core/text/sortedBy.js";

/**
 * Reads the sources of a language's runtime, by path inside its folder.
 *
 * @throws Error of the file system if the folder cannot be read
 */
export function runtimeSources(folder: string): Map<string, string> {
  const entries = readdirSync(folder, { recursive: true, withFileTypes: true }).filter((entry) => entry.isFile());
  const read = entries.map(({ parentPath, name }): [string, string] => {
    const path = join(parentPath, name);
    return [relative(folder, path).replaceAll("\\", "/"), readFileSync(path, "utf8")];
  });
  return new Map(sortedBy(read, ([path]) => path));
}
