import { existsSync } from "node:fs";
import { join } from "node:path";

/** Returns the command that compiles a package; undefined for an Xcode project, whose schemes are unknown. */
export function buildCommand(root: string): string | undefined {
  return existsSync(join(root, "Package.swift")) ? "swift build" : undefined;
}
