import type { SourceText } from "../../core/problem/place.js";
import { existsSync, realpathSync } from "node:fs";
import { basename, dirname, isAbsolute, join, relative, resolve, sep } from "node:path";
import { problem, type Problem } from "../../core/problem/problem.js";
import type { Secrets } from "../../core/text/secrets.js";
import type { Configuration } from "../configuration/configuration.js";
import { exitCodes, Halt } from "./halt.js";
import type { Environment, Trace } from "./trace.js";

/** A folder with a configuration: everything a command works on. */
export interface Project {
  /** Absolute path of the folder that holds the configuration. */
  readonly root: string;
  /** What `${NAME}` in the configuration is looked up in. */
  readonly environment: Environment;
  readonly trace: Trace;
  readonly secrets: Secrets;
  /** The configuration's file name, as messages call it. */
  readonly configName: string;
  readonly configText: string;
  readonly configuration: Configuration;
  /** Warnings about the configuration. */
  readonly problems: readonly Problem[];
  /** What was fetched just now and is not saved: it stands for the copies of the same contract and address. */
  readonly unsaved?: UnsavedCopies;
}

/** Copies that are not saved. */
export interface UnsavedCopies {
  readonly find: (contract: string, address: string | undefined) => SourceText | undefined;
}

/** A path as messages and ledgers spell it: relative to the project, with slashes. */
export function displayPath(project: Pick<Project, "root">, path: string): string {
  const inside = relative(project.root, path);
  return (inside === "" ? "." : inside).split(sep).join("/");
}

/**
 * The absolute path of a folder Rhema writes, refused when it is the project itself or outside it, also through a
 * symbolic link.
 * @throws Halt if the folder is outside the project
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
          hint: `Choose a folder below the one that holds ${project.configName}.`,
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

/** The real path of something that may not exist yet: that of its nearest existing ancestor, and the rest. */
function realOf(path: string): string {
  let existing = path;
  const rest: string[] = [];
  while (!existsSync(existing)) {
    rest.unshift(basename(existing));
    existing = dirname(existing);
  }
  return join(realpathSync(existing), ...rest);
}

/** Where Rhema keeps its state. */
export function stateFolder(project: Pick<Project, "root">): string {
  return join(project.root, ".rhema");
}
