import { existsSync } from "node:fs";
import { basename, dirname, join, resolve } from "node:path";
import { hasErrors, problem } from "../../core/problem/problem.js";
import { isData, parseData } from "../../core/text/parseData.js";
import type { Secrets } from "../../core/text/secrets.js";
import type { Configuration } from "../configuration/configuration.js";
import { exitCodes, Halt } from "./halt.js";
import type { Project } from "./project.js";
import type { Session } from "./session.js";
import { errorCode, readText } from "../files/textFile.js";
import type { Whereabouts } from "./whereabouts.js";

/** A project for a command, with the state of the run. */
export interface OpenedProject extends Project {
  readonly session: Session;
}

const configNames = ["rhema.yaml", "rhema.yml", "rhema.json"];

/**
 * Finds and reads the configuration. Validating it loads Ajv, so a caller that knows that this text was valid before
 * may skip it.
 *
 * @param configFlag the value of --config
 * @throws Halt if it is missing or not valid
 */
export async function openProject(
  where: Whereabouts,
  configFlag: string | undefined,
  options: { readonly isKnownSound?: (root: string, text: string) => boolean } = {},
): Promise<OpenedProject> {
  const path =
    configFlag === undefined
      ? configNames.map((name) => join(where.folder, name)).find((candidate) => existsSync(candidate))
      : resolve(where.folder, configFlag);
  if (path === undefined) {
    throw new Halt(
      [
        problem("config.missing", "There is no rhema.yaml in this folder.", {
          hint: "Run `rhema init` to create it, or use --config FILE.",
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
    : (await import("../configuration/checkConfiguration.js")).checkConfiguration(
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

/** Records credentials that are written in the configuration. */
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
