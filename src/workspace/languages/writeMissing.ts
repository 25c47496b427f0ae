import { existsSync, mkdirSync, writeFileSync } from "node:fs";
import { dirname, join, resolve } from "node:path";
import { problem } from "../../core/problem/problem.js";
import { exitCodes, Halt } from "../project/halt.js";
import { displayPath, isInside, type Project } from "../project/project.js";

/** The files that were written, and those that existed. */
export interface WrittenFiles {
  readonly written: readonly string[];
  readonly kept: readonly string[];
  /** Returns a path in the folder, for people. */
  readonly shown: (path: string) => string;
}

/**
 * Writes files of a program into a folder of the project. Existing files stay as they are.
 *
 * @param files texts by path in the folder
 * @throws Halt (usage) if the folder is not inside the project
 */
export function writeMissing(project: Project, folder: string, files: ReadonlyMap<string, string>): WrittenFiles {
  const root = resolve(project.root, folder);
  if (root !== project.root && !isInside(project.root, root)) {
    const message = `The program would be written to \`${folder}\`, which is not inside the project.`;
    throw new Halt([problem("path.outside", message, { hint: "Choose a folder below it." })], exitCodes.usage);
  }
  const written: string[] = [];
  const kept: string[] = [];
  for (const [path, text] of files) {
    const target = join(root, path);
    const shown = displayPath(project, target);
    if (existsSync(target)) {
      kept.push(shown);
      continue;
    }
    mkdirSync(dirname(target), { recursive: true });
    writeFileSync(target, text, { flag: "wx" });
    written.push(shown);
  }
  return { written, kept, shown: (path) => displayPath(project, join(root, path)) };
}
