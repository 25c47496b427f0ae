import { existsSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

declare const RHEMA_VERSION: string | undefined;
declare const RHEMA_BUILD: string | undefined;

/** The version of the package, set when the program is bundled. */
export const version = typeof RHEMA_VERSION === "string" ? RHEMA_VERSION : "0.0.0";

/** Changes whenever the program's own sources do, so that a new build never accepts old output. */
export const build = typeof RHEMA_BUILD === "string" ? RHEMA_BUILD : "source";

/**
 * Returns the folder of the installed package with `runtimes`, `schema` and `demo`.
 *
 * @throws Error if the installation is not complete
 */
export function packageFolder(): string {
  let folder = dirname(fileURLToPath(import.meta.url));
  while (!existsSync(join(folder, "schema", "rhema.schema.json"))) {
    const parent = dirname(folder);
    if (parent === folder) throw new Error("The installation is not complete: schema/rhema.schema.json is missing.");
    folder = parent;
  }
  return folder;
}
