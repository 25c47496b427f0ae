import { existsSync, statSync } from "node:fs";
import { join } from "node:path";
import { beginsLikeSchema } from "../../core/graphql/schemaStart.js";
import { isUrl } from "../../core/rest/documentNames.js";
import { problem, type Problem } from "../../core/problem/problem.js";
import { readCopy } from "../sources/copies.js";
import type { ContractConfiguration } from "../configuration/configuration.js";
import { editorsPath } from "./editorsPath.js";
import type { Ledger } from "./ledger.js";
import { displayPath, type Project } from "../project/project.js";
import { schemaPattern, sourceList, type QueryTexts } from "../sources/sources.js";
import { hashOf, readText } from "../files/textFile.js";
import type { SourceText } from "../../core/problem/place.js";

/** The texts of a project's contracts, as far as they are available. */
interface Texts {
  readonly has: (contract: string) => boolean;
  readonly contract: (contract: string) => readonly SourceText[];
  readonly queryDocuments: (contract: string) => QueryTexts;
}

/** The result for the file. */
export interface EditorsFile {
  readonly state: "unchanged" | "to write" | "to remove" | "in the way";
  /** Its content; undefined if it is not wanted. */
  readonly text: string | undefined;
  readonly problems: readonly Problem[];
}

/**
 * Compares the file for editors with its new content.
 *
 * @param force whether manual edits are overwritten
 */
export function editorsFile(
  project: Project,
  texts: Texts,
  { ledger, force }: { readonly ledger: Ledger; readonly force: boolean },
): EditorsFile {
  const text = project.configuration.editors === true ? editorsText(project, texts) : undefined;
  const path = join(project.root, editorsPath);
  const found = textOf(path);
  const isOwn = found !== undefined && hashOf(found) === ledger.editors;
  const settled = (state: EditorsFile["state"], ...problems: Problem[]): EditorsFile => ({ state, text, problems });
  if (text === undefined) return settled(isOwn ? "to remove" : "unchanged", ...withoutEffect(project));
  if (found === text && isOwn) return settled("unchanged");
  if (found === undefined || found === text || isOwn) return settled("to write");
  if (ledger.editors === undefined)
    return settled(
      "in the way",
      problem("output.foreign", `\`${editorsPath}\` exists, and Rhema did not write it.`, {
        why: "Rhema does not replace your files, even with --force.",
        hint: "Move it away, or remove `editors` from the configuration.",
      }),
    );
  if (force) return settled("to write");
  return settled(
    "in the way",
    problem("output.edited", `\`${editorsPath}\` was edited.`, {
      why: "Rhema would overwrite the edit.",
      hint: "Change the configuration instead, or replace the edit with --force.",
    }),
  );
}

/** The file's current text; "" if it is not a file, which Rhema did not write. */
function textOf(path: string): string | undefined {
  if (!existsSync(path)) return undefined;
  return statSync(path).isFile() ? readText(path) : "";
}

function withoutEffect({ configuration, configName }: Project): Problem[] {
  if (configuration.editors !== true) return [];
  const place = { document: configName, pointer: "/editors" };
  const message = "`editors` has no effect: no contract of this project is a GraphQL schema.";
  return [problem("config.ineffective", message, { level: "warning", place })];
}

/** The new text: the paths of the schema and the queries of each GraphQL contract; undefined if there is none. */
function editorsText(project: Project, texts: Texts): string | undefined {
  const contracts = Object.entries(project.configuration.contracts).filter(([name, settings]) =>
    isGraphql(name, settings, texts),
  );
  const parts = contracts.map(([name, settings]): [string, string[]] => [
    name,
    [
      ...listed("schema", schemasOf(project, name, settings)),
      ...listed("documents", [...(settings.queries ?? []), ...unread(project, settings)]),
    ],
  ]);
  const [first, ...others] = parts;
  if (!first) return undefined;
  const lines =
    others.length === 0
      ? first[1]
      : ["projects:", ...parts.flatMap(([name, inner]) => [`  ${name}:`, ...inner.map((line) => `    ${line}`)])];
  return [
    `# Written by rhema generate from ${project.configName}, for editors. Change that instead.`,
    ...lines,
    "",
  ].join("\n");
}

/** A list of paths as YAML; no line if it is empty. */
function listed(key: string, paths: readonly string[]): string[] {
  return paths.length === 0 ? [] : [`${key}:`, ...paths.map((path) => `  - ${JSON.stringify(path)}`)];
}

function isGraphql(name: string, { queries }: ContractConfiguration, texts: Texts): boolean {
  if (queries !== undefined) return true;
  const [first] = texts.has(name) ? texts.contract(name) : [];
  return first !== undefined && (/\.(graphqls?|gql)$/i.test(first.document) || beginsLikeSchema(first.text));
}

/** The paths of a schema: files and patterns of the configuration, and copies of remote ones. */
function schemasOf(project: Project, name: string, settings: ContractConfiguration): string[] {
  const copy = (address: string | undefined): string[] => {
    const found = readCopy(project, name, address);
    return found ? [found.document] : [];
  };
  if (typeof settings.from === "object" && "run" in settings.from) return copy(undefined);
  return sourceList(settings).flatMap((source) => (isUrl(source) ? copy(source) : [schemaPattern(project, source)]));
}

/** Copies of schemas inside SDKs are not queries, whatever the patterns match. */
function unread(project: Project, { queries = [] }: ContractConfiguration): string[] {
  if (queries.length === 0) return [];
  return Object.values(project.configuration.sdks).flatMap(({ into, settings }) =>
    settings?.schema === true ? [`!${displayPath(project, join(project.root, into))}/**`] : [],
  );
}
