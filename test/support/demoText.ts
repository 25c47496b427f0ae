import { readFileSync } from "node:fs";
import { join } from "node:path";
import { packageRoot } from "./packageRoot.js";

/** The text of a file of the demo, by its path there. */
export function demoText(path: string): string {
  return readFileSync(join(packageRoot, "demo", path), "utf8");
}
