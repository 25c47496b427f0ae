import { existsSync } from "node:fs";
import { join } from "node:path";

/** What compiles a package; undefined for a project of Xcode, whose schemes nobody can guess. */
export function buildCommand(root: string): string | undefined {
  return existsSync(join(root, "Package.swift")) ? "swift build" : undefined;
}
