import type { SourceText } from "../../core/problem/place.js";
import { existsSync, realpathSync } from "node:fs";
import { basename, dirname, isAbsolute, join, relative, resolve, sep } from "node:path";
import { problem, type Problem } from "../../core/problem/problem.js";
import type { Secrets } from "../../core/text/secrets.js";
import type { Configuration } from "../configuration/configuration.js";
import { exitCodes, Halt } from "./halt.js";
import type { Environment, Trace } from "./trace.js";

/** A folder with a configuration. */
export interface Project {
  /** The absolute path of the configuration's folder. */
  readonly root: string;
  /** The environment for `${NAME}` in the configuration. */
  readonly environment: Environment;
  readonly trace: Trace;
  readonly secrets: Secrets;
  /** The configuration's file name, for messages. */
  readonly configName: string;
  readonly configText: string;
  readonly configuration: Configuration;
  /** Warnings about the configuration. */
  readonly problems: readonly Problem[];
  /** Texts that were just fetched and are not saved. They replace the copies of the same contract and address. */
  readonly unsaved?: UnsavedCopies;
}

/** Copies that are not saved. */
export interface UnsavedCopies {
  readonly find: (contract: string, address: string | undefined) => SourceText | undefined;
}

/** Returns a path for messages and lists of files: relative to the project, with slashes. */
export function displayPath(project: Pick<Project, "root">, path: string): string {
  const inside = relative(project.root, path);
  return (inside === "" ? "." : inside).split(sep).join("/");
}

/**
 * Returns the absolute path of an output folder.
 *
 * @param into the configured path
 * @throws Halt if the folder is the project itself or outside it, also through a symbolic link
 */
export function outputFolder(project: Project, sdk: string, into: string): string {
  const wanted = resolve(project.root, into);
  const texts = new Map([[project.configName, project.configText]]);
  if (!isInside(project.root, wanted) || !isInside(realpathSync(project.root), realOf(wanted))) {
    const message = `The SDK \`${sdk}\` would be written to \`${into}\`, which is not inside the project.`;
    const place = { document: project.configName, pointer: `/sdks/${sdk}/into` };
    throw new Halt(
      [
        problem("path.outside", message, {
          place,
          hint: `Choose a folder below the folder of ${project.configName}.`,
        }),
      ],
      exitCodes.usage,
      texts,
    );
  }
  return wanted;
}

/** Returns whether a path is inside a folder, both absolute. */
export function isInside(folder: string, path: string): boolean {
  const inside = relative(folder, path);
  return inside !== "" && inside !== ".." && !inside.startsWith(`..${sep}`) && !isAbsolute(inside);
}

/** The real path of a file that may not exist yet: that of its closest existing parent, and the rest. */
function realOf(path: string): string {
  let existing = path;
  const rest: string[] = [];
  while (!existsSync(existing)) {
    rest.unshift(basename(existing));
    existing = dirname(existing);
  }
  return join(realpathSync(existing), ...rest);
}

/** Returns the folder for Rhema's state. */
export function stateFolder(project: Pick<Project, "root">): string {
  return join(project.root, ".rhema");
}
