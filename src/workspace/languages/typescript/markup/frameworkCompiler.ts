import { createRequire } from "node:module";
import { dirname, join } from "node:path";

/**
 * Returns a module that the app has installed, as a file of the app would load it; undefined if it is not installed.
 */
export function installedModule(id: string, path: string): unknown {
  try {
    return createRequire(join(dirname(path), "component.js"))(id);
  } catch {
    return undefined;
  }
}
