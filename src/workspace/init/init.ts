import { existsSync } from "node:fs";
import { basename, dirname, join, resolve } from "node:path";
import { isUrl } from "../../core/rest/documentNames.js";
import { problem } from "../../core/problem/problem.js";
import { parseData } from "../../core/text/parseData.js";
import { checkConfiguration } from "../configuration/checkConfiguration.js";
import type { ContractConfiguration } from "../configuration/configuration.js";
import { exitCodes, Halt } from "../project/halt.js";
import { createWhole, replaceWhole } from "../files/wholeFile.js";
import type { Whereabouts } from "../project/whereabouts.js";
import { isInside } from "../project/project.js";
import { workspaceLanguages } from "../languages/index.js";
import { configText } from "./configText.js";
import { contractName, type Surroundings } from "./lookAround.js";
import { dependsOn, withScripts } from "./scripts.js";
import { tryContract, type TriedContract } from "./tryContract.js";

/** A source that the user chose: a path, glob or URL, or a command that prints the contract. */
export interface ChosenSource {
  readonly name: string | undefined;
  readonly from: ContractConfiguration["from"];
}

/** Reads "name=source". The name may be left out. */
export function readSource(text: string, isCommand: boolean): ChosenSource {
  const found = /^([a-z][a-z0-9-]{0,39})=(.+)$/s.exec(text);
  const source = found?.[2] ?? text;
  return { name: found?.[1], from: isCommand ? { run: source } : source };
}

/** Checks that there is no configuration, because it is never overwritten. @throws Halt (usage) if there is one */
export function assertNoConfiguration(root: string, name: string): void {
  const usual = ["rhema.yaml", "rhema.yml", "rhema.json"];
  const there = (usual.includes(name) ? usual : [name]).find((each) => existsSync(join(root, each)));
  if (there === undefined) return;
  const message = `\`${there}\` already exists, and is not overwritten.`;
  const hint = "Edit it, or delete it and run `rhema init` again.";
  throw new Halt([problem("init.there", message, { hint })], exitCodes.usage);
}

/**
 * Tries a source and names it.
 *
 * @param taken the names of other contracts
 * @throws Halt if it is not available or cannot be read
 */
export async function adopt(
  where: Whereabouts,
  source: ChosenSource,
  {
    queries,
    headers,
    taken,
  }: { queries: readonly string[]; headers: Readonly<Record<string, string>>; taken: ReadonlySet<string> },
): Promise<TriedContract> {
  const { from } = source;
  const settings = { from, ...(isRemote(from) && Object.keys(headers).length > 0 ? { headers } : {}) };
  return tryContract(where, freeName(source.name ?? nameOf(from), taken), { settings, queries });
}

function isRemote(from: ContractConfiguration["from"]): boolean {
  return typeof from === "string" ? isUrl(from) : !("run" in from) && from.some(isUrl);
}

/** Names that do not describe a contract. */
const plainNames = new Set([
  "openapi",
  "swagger",
  "schema",
  "api",
  "spec",
  "index",
  "docs",
  "graphql",
  "v1",
  "v2",
  "v3",
  "api-docs",
]);

function nameOf(from: ContractConfiguration["from"]): string {
  if (typeof from === "object" && "run" in from) return "api";
  // Several files get the name of their folder.
  const first = typeof from === "string" ? from : from.length > 1 ? dirname(from[0] ?? "") : (from[0] ?? "");
  if (isUrl(first)) {
    const { pathname, hostname } = new URL(first);
    const parts = pathname
      .split("/")
      .filter((part) => part !== "")
      .map((part) => part.replace(/\.[^.]*$/, ""));
    const telling = parts.reverse().find((part) => !plainNames.has(part.toLowerCase()));
    const host = /^(?:localhost|[\d.]+|\[)/.test(hostname)
      ? undefined
      : hostname.replace(/^(?:www|api)\./, "").split(".")[0];
    return contractName(telling ?? host ?? "api") ?? "api";
  }
  const parts = first.split("/").filter((part) => !/[*{]/.test(part) && part !== "." && part !== "");
  const named = parts.map((part) => part.replace(/\.[^.]*$/, "").replace(/\.(?:openapi|schema|api)$/i, "")).reverse();
  const telling = named.find((part) => !plainNames.has(part.toLowerCase()) && contractName(part) !== undefined);
  const [last = "api"] = named;
  return contractName(parts.length > 1 || plainNames.has(last.toLowerCase()) ? usual(telling, last) : last) ?? "api";
}

/**
 * The folder's name replaces the name of a file that describes nothing, unless the folder's name describes nothing
 * either.
 */
function usual(telling: string | undefined, last: string): string {
  return telling !== undefined && !["src", "app", "contracts", "schemas", "specs", "apis"].includes(telling)
    ? telling
    : last;
}

function freeName(name: string, taken: ReadonlySet<string>): string {
  if (!taken.has(name)) return name;
  for (let more = 2; ; more++) if (!taken.has(`${name}-${String(more)}`)) return `${name}-${String(more)}`;
}

/** Returns a free folder for the SDK, inside the source folder. */
export function freeFolder(root: string, { source }: Surroundings): string {
  const below = source === "." ? "" : `${source}/`;
  return (
    [`${below}sdk`, `${below}api-sdk`, `${below}generated-sdk`].find((path) => !existsSync(join(root, path))) ??
    `${below}rhema-sdk`
  );
}

export interface InitPlan {
  readonly contracts: readonly TriedContract[];
  readonly sdk: string;
  readonly language: string;
  readonly into: string;
  readonly settings: Readonly<Record<string, string>>;
  readonly configName: string;
  readonly scripts: boolean;
  readonly surroundings: Surroundings;
}

export interface InitOutcome {
  readonly config: string;
  readonly scripts: readonly string[];
  /** Existing scripts that are not changed and should run `rhema generate` too. */
  readonly scriptsLeft: readonly string[];
  /** Whether the program is not a dependency of the project yet. */
  readonly toInstall: boolean;
}

/**
 * Writes the configuration and, if wanted, the scripts. Nothing is overwritten.
 *
 * @throws Halt if the output folder is outside the project
 */
export function writeInit(root: string, plan: InitPlan): InitOutcome {
  const { contracts, sdk, language, into, settings, configName, surroundings } = plan;
  const wanted = resolve(root, into);
  if (!isInside(root, wanted)) {
    const message = `The SDK would be written to \`${into}\`, which is not inside the project.`;
    throw new Halt([problem("path.outside", message, { hint: "Choose a folder below this one." })], exitCodes.usage);
  }
  const schema = "node_modules/rhema/schema/rhema.schema.json";
  const text = configText({
    contracts: contracts.map(({ name, settings, title, about, scalars }) => ({
      name,
      from: settings.from,
      headers: settings.headers ?? {},
      queries: settings.queries,
      scalars,
      about: title === "" ? about : `${title}, ${about}`,
    })),
    sdk,
    language,
    into,
    settings,
    textScalar: textScalarOf(language),
    schema: existsSync(join(root, schema)) ? schema : undefined,
  });
  assertSound(text, configName);
  assertNoConfiguration(root, configName);
  createWhole(join(root, configName), text);
  const { manifest } = surroundings;
  const scripts = plan.scripts && manifest !== undefined ? withScripts(manifest) : undefined;
  if (scripts && scripts.added.length > 0) replaceWhole(join(root, "package.json"), scripts.text);
  return {
    config: configName,
    scripts: scripts?.added ?? [],
    scriptsLeft: scripts?.left ?? [],
    toInstall: manifest !== undefined && !dependsOn(manifest, "rhema") && basename(root) !== "rhema",
  };
}

/** The first possible type of a scalar, in a language with a fixed list of them. */
function textScalarOf(language: string): string {
  const scalar = workspaceLanguages.find(({ id }) => id === language)?.scalar;
  const [first = "string"] = (scalar as { readonly enum?: readonly string[] } | undefined)?.enum ?? [];
  return first;
}

/** A typed value may make the configuration invalid. This is reported before anything is written. */
function assertSound(text: string, configName: string): void {
  const parsed = parseData(text);
  const problems = parsed.ok ? checkConfiguration(parsed.data, configName) : [];
  const errors = problems.filter(({ level }) => level === "error");
  if (errors.length > 0) throw new Halt(errors, exitCodes.usage, new Map([[configName, text]]));
}
