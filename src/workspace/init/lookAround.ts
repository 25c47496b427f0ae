import { closeSync, existsSync, openSync, readFileSync, readSync, statSync } from "node:fs";
import { basename, dirname, join } from "node:path";
import { globSync } from "tinyglobby";
import { hostGlob, isHostFile, markPattern, usualTags } from "../../core/languages/hostFiles.js";
import { beginsLikeSchema } from "../../core/graphql/schemaStart.js";
import { dataMember, isData, parseData, textMember } from "../../core/text/parseData.js";
import { kebabCase } from "../../core/text/words.js";
import { foreignProjects, languageSigns, usualLanguage } from "../languages/index.js";

/** The facts about a folder without a configuration. */
export interface Surroundings {
  /** The contracts in it, as `from` would name them, by path. */
  readonly contracts: readonly FoundContract[];
  /** Patterns that match the query documents and source files with queries. */
  readonly queries: readonly string[];
  /** The app's source folder, "." if it has none of its own. */
  readonly source: string;
  /** A name for the SDK. */
  readonly name: string;
  /** "React", "Vue", …; undefined if it is unknown. */
  readonly framework: string | undefined;
  /** The language of the project, by its name in the configuration. */
  readonly language: string;
  /** A language that the project seems to have, and for which there are no SDKs yet. */
  readonly otherLanguage: string | undefined;
  /** The text of package.json. */
  readonly manifest: string | undefined;
}

export interface FoundContract {
  readonly from: string | readonly string[];
  readonly protocol: "rest" | "graphql";
}

const notLookedInto = [
  "**/node_modules/**",
  "**/.*/**",
  "**/{dist,build,out,coverage,target,vendor}/**",
  "**/{package,package-lock,tsconfig,tsconfig.*,composer,deno,jsr}.json",
  "**/pnpm-*.yaml",
];
const mostFiles = 20_000;
const startBytes = 8192;

/** Searches a project for contracts, queries, language and source folder. It reads only the beginnings of files. */
export function lookAround(root: string): Surroundings {
  const search = (patterns: readonly string[]): string[] =>
    globSync([...patterns], { cwd: root, ignore: notLookedInto, deep: 8 })
      .slice(0, mostFiles)
      .sort();
  const descriptions = search(["**/*.{yaml,yml,json}"]).filter((path) => isDescription(startOf(join(root, path))));
  const graphql = search(["**/*.{graphql,gql,graphqls}"]);
  const schemas = graphql.filter((path) => beginsLikeSchema(startOf(join(root, path))));
  const documents = graphql.filter((path) => !schemas.includes(path));
  const manifest = textOf(join(root, "package.json"));
  const source = sourceFolder(root);
  const dependencies = dependenciesOf(manifest);
  const framework = frameworks.find(([dependency]) => dependencies.includes(dependency))?.[1];
  const language = languageOf(
    root,
    dependencies,
    (endings) => search(endings.map((ending) => `**/*.${ending}`)).length > 0,
  );
  const hosts = search([`${source === "." ? "" : `${source}/`}**/${hostGlob}`]);
  return {
    contracts: [
      ...descriptions.map((from): FoundContract => ({ from, protocol: "rest" })),
      ...schemaSources(root, schemas).map((from): FoundContract => ({ from, protocol: "graphql" })),
    ],
    queries: queryPatterns(root, documents, { hosts, pick: { source, framework, language } }),
    source,
    name: projectName(root, manifest),
    framework,
    language,
    otherLanguage: manifest === undefined ? otherLanguage(root) : undefined,
    manifest,
  };
}

/** An OpenAPI document has its version near the beginning, and an introspection result its schema. */
function isDescription(start: string): boolean {
  return (
    /^\s*(?:"?(?:openapi|swagger)"?\s*:\s*["']?\d)/m.test(start) ||
    /^\s*\{[^]{0,400}"(?:openapi|swagger)"\s*:/.test(start) ||
    start.includes('"__schema"')
  );
}

/** The schema files of one folder belong together. Each folder is a contract. */
function schemaSources(root: string, schemas: readonly string[]): (string | readonly string[])[] {
  const folders = new Map<string, string[]>();
  for (const path of schemas) folders.set(dirname(path), [...(folders.get(dirname(path)) ?? []), path]);
  // One of a schema's files defines Query. Folders below it contain the rest.
  const tops = [...folders.keys()].filter(
    (folder) => ![...folders.keys()].some((other) => other !== folder && folder.startsWith(`${other}/`)),
  );
  return tops.map((top) => {
    const files = schemas.filter((path) => dirname(path) === top || path.startsWith(`${top}/`));
    const roots = files.filter((path) => /\btype\s+Query\b|\bschema\s*[@{]/.test(textOf(join(root, path)) ?? ""));
    // Several files that each begin a schema are versions of one, not parts.
    const [first = ""] = roots.length > 1 ? roots : files;
    return files.length === 1 || roots.length > 1 ? first : files;
  });
}

function queryPatterns(
  root: string,
  documents: readonly string[],
  {
    hosts,
    pick: { source, framework, language },
  }: { readonly hosts: readonly string[]; readonly pick: Pick<Surroundings, "source" | "framework" | "language"> },
): readonly string[] {
  const marks = markPattern(usualTags);
  const tops = [...new Set(documents.map((path) => path.split("/")[0] ?? "").filter((top) => !top.includes(".")))];
  const inDocuments = tops.map((top) => `${top}/**/*.{graphql,gql}`);
  const endings = [
    ...new Set(
      hosts
        .filter((path) => isHostFile(path) && marks.test(textOf(join(root, path)) ?? ""))
        .map((path) => path.slice(path.lastIndexOf(".") + 1)),
    ),
  ].sort();
  const below = source === "." ? "" : `${source}/`;
  const inSource =
    endings.length === 0
      ? []
      : [`${below}**/*.${endings.length === 1 ? (endings[0] ?? "") : `{${endings.join(",")}}`}`];
  if (inDocuments.length + inSource.length > 0) return [...inDocuments, ...inSource];
  const usual = languageSigns.find(({ id }) => id === language)?.queries;
  if (usual) return usual;
  const own = framework === "Vue" || framework === "Nuxt" ? ["vue"] : framework === "Svelte" ? ["svelte"] : [];
  return [`${below}**/*.{${["graphql", "gql", "ts", "tsx", "js", "jsx", ...own].join(",")}}`];
}

const sourceFolders = ["src", "app", "source", "lib", "client", "web", "frontend"];

function sourceFolder(root: string): string {
  return (
    sourceFolders.find((folder) => existsSync(join(root, folder)) && statSync(join(root, folder)).isDirectory()) ??
    "src"
  );
}

function projectName(root: string, manifest: string | undefined): string {
  const data = manifest === undefined ? undefined : parseData(manifest);
  const name = data?.ok === true && isData(data.data) ? textMember(data.data, "name") : undefined;
  return contractName(name?.replace(/^@[^/]*\//, "") ?? basename(root)) ?? "app";
}

/** Returns a text as a valid name in the configuration; undefined if nothing is left of it. */
export function contractName(text: string): string | undefined {
  const name = kebabCase(text)
    .replace(/^[^a-z]+/, "")
    .slice(0, 40)
    .replace(/-+$/, "");
  return name === "" ? undefined : name;
}

const frameworks = [
  ["nuxt", "Nuxt"],
  ["next", "Next"],
  ["@angular/core", "Angular"],
  ["svelte", "Svelte"],
  ["vue", "Vue"],
  ["react-native", "React Native"],
  ["react", "React"],
] as const;

/** The names of the packages that a project depends on. */
function dependenciesOf(manifest: string | undefined): string[] {
  const parsed = manifest === undefined ? undefined : parseData(manifest);
  if (parsed?.ok !== true || !isData(parsed.data)) return [];
  const { data } = parsed;
  return ["dependencies", "devDependencies"].flatMap((key) => Object.keys(dataMember(data, key) ?? {}));
}

function languageOf(
  root: string,
  dependencies: readonly string[],
  holds: (endings: readonly string[]) => boolean,
): string {
  const has = (file: string): boolean => existsSync(join(root, file));
  const shown = languageSigns.find(
    ({ files, packages, endings, beside = [] }) =>
      (files.some(has) && !beside.some(has)) || packages.some((each) => dependencies.includes(each)) || holds(endings),
  );
  return shown?.id ?? usualLanguage;
}

function otherLanguage(root: string): string | undefined {
  return foreignProjects.find(([file]) => existsSync(join(root, file)))?.[1];
}

function textOf(path: string): string | undefined {
  try {
    return readFileSync(path, "utf8");
  } catch {
    // A file that cannot be read counts as missing here.
    return undefined;
  }
}

function startOf(path: string): string {
  try {
    const file = openSync(path, "r");
    try {
      const buffer = Buffer.alloc(startBytes);
      return buffer.toString("utf8", 0, readSync(file, buffer, 0, startBytes, 0));
    } finally {
      closeSync(file);
    }
  } catch {
    return "";
  }
}
