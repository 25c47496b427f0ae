import { existsSync, realpathSync } from "node:fs";
import { basename, dirname, isAbsolute, join, relative, resolve, sep } from "node:path";
import { hasErrors, problem, type Problem } from "../core/problem/problem.js";
import { isData, parseData } from "../core/text/parseData.js";
import type { Secrets } from "../core/text/secrets.js";
import type { Configuration } from "./configuration.js";
import { exitCodes, Halt } from "./halt.js";
import { errorCode, readText } from "./textFile.js";
import type { Session } from "./session.js";
import type { Environment, Trace, Whereabouts } from "./whereabouts.js";

/** A folder with a configuration: everything a command works on. */
export interface Project {
  /** Absolute path of the folder that holds the configuration. */
  readonly root: string;
  /** What `${NAME}` in the configuration is looked up in. */
  readonly environment: Environment;
  readonly trace: Trace;
  readonly secrets: Secrets;
  readonly session: Session;
  /** The configuration's file name, as messages call it. */
  readonly configName: string;
  readonly configText: string;
  readonly configuration: Configuration;
  /** Warnings about the configuration. */
  readonly problems: readonly Problem[];
}

const configNames = ["rhema.yaml", "rhema.yml", "rhema.json"];

/**
 * Finds and reads the configuration. Checking it loads Ajv, so a caller that has proof that this very text was sound
 * before may leave it out.
 *
 * @throws Halt when it is missing or not valid
 */
export async function openProject(
  where: Whereabouts,
  configFlag: string | undefined,
  options: { readonly isKnownSound?: (root: string, text: string) => boolean } = {},
): Promise<Project> {
  const path =
    configFlag === undefined
      ? configNames.map((name) => join(where.folder, name)).find((candidate) => existsSync(candidate))
      : resolve(where.folder, configFlag);
  if (path === undefined) {
    throw new Halt(
      [
        problem("config.missing", "There is no rhema.yaml in this folder.", {
          hint: "Create it, or name another file with --config FILE.",
        }),
      ],
      exitCodes.usage,
    );
  }
  const configName = basename(path);
  const root = dirname(path);
  const configText = readConfiguration(path, configName);
  where.trace(() => `read the configuration ${path}`);
  const parsed = parseData(configText);
  const texts = new Map([[configName, configText]]);
  if (!parsed.ok) {
    const place = { document: configName, offset: parsed.offset, length: 1 };
    throw new Halt(
      [problem("config.unreadable", `The configuration is not valid YAML: ${parsed.message}.`, { place })],
      exitCodes.usage,
      texts,
    );
  }
  const known = isData(parsed.data) && options.isKnownSound?.(root, configText) === true;
  const problems = known
    ? []
    : (await import("./checkConfiguration.js")).checkConfiguration(
        parsed.data ?? {},
        configName,
        where.session.validate,
      );
  if (hasErrors(problems)) throw new Halt(problems, exitCodes.usage, texts);
  const configuration = parsed.data as Configuration;
  learnSecrets(where.secrets, configuration);
  return {
    root,
    environment: where.environment,
    trace: where.trace,
    secrets: where.secrets,
    session: where.session,
    configName,
    configText,
    configuration,
    problems,
  };
}

/** Takes note of credentials that stand in the configuration in clear. */
function learnSecrets(secrets: Secrets, { contracts }: Configuration): void {
  for (const { from, headers = {} } of Object.values(contracts)) {
    secrets.learnHeaders(Object.entries(headers));
    for (const source of typeof from === "object" && "run" in from ? [] : [from].flat())
      if (source.includes("://") && URL.canParse(source)) secrets.learnAddress(new URL(source));
  }
}

function readConfiguration(path: string, name: string): string {
  try {
    return readText(path);
  } catch (error) {
    const why = errorCode(error) === "ENOENT" ? "does not exist" : "cannot be read";
    throw new Halt(
      [
        problem("config.missing", `The configuration file \`${name}\` ${why}.`, {
          hint: "Check the path given with --config.",
        }),
      ],
      exitCodes.usage,
    );
  }
}

/** A path as messages and ledgers spell it: relative to the project, with slashes. */
export function displayPath(project: Pick<Project, "root">, path: string): string {
  const inside = relative(project.root, path);
  return (inside === "" ? "." : inside).split(sep).join("/");
}

/**
 * The absolute path of a folder Rhema writes, refused when it is the project itself or outside it, also through a
 * symbolic link.
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
