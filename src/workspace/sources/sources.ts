import { existsSync, realpathSync, statSync } from "node:fs";
import { resolve } from "node:path";
import { globSync } from "tinyglobby";
import { isHostFile, markPattern, tagsOf } from "../../core/languages/hostFiles.js";
import type { Place, SourceText } from "../../core/problem/place.js";
import { problem, type Problem } from "../../core/problem/problem.js";
import { sortedBy } from "../../core/text/sortedBy.js";
import { exitCodes, Halt } from "../project/halt.js";
import { isUrl } from "../../core/rest/documentNames.js";
import type { ContractConfiguration } from "../configuration/configuration.js";
import { readCopy } from "./copies.js";
import { isAllowedHost } from "../configuration/allowedHosts.js";
import { displayPath, isInside, type Project } from "../project/project.js";
import { errorCode, readText } from "../files/textFile.js";

const schemaFiles = "**/*.{graphql,gql,graphqls}";
const descriptionFiles = "**/*.{yaml,yml,json}";
const neverSearched = ["**/node_modules/**", "**/.git/**", "**/.rhema/**"];

/**
 * Returns the texts of a contract's files, sorted by path.
 *
 * @throws Halt (unreadable) if a file does not exist or cannot be read
 */
export function contractTexts(project: Project, contract: string): SourceText[] {
  const texts = textsOf(project, contract);
  for (const { document, text } of texts)
    project.trace(() => `read ${document} (${String(text.length)} characters) for the contract ${contract}`);
  return texts;
}

function textsOf(project: Project, contract: string): SourceText[] {
  const settings = project.configuration.contracts[contract] ?? { from: [] };
  if (typeof settings.from === "object" && "run" in settings.from) return [copyOf(project, contract, undefined)];
  return sourceList(settings).flatMap((source) =>
    isUrl(source) ? [copyOf(project, contract, source)] : readAll(project, filesOf(project, contract, source)),
  );
}

/** Returns the paths, globs and URLs of a contract, in the configuration's order. */
export function sourceList({ from }: Pick<ContractConfiguration, "from">): readonly string[] {
  return typeof from === "string" ? [from] : "run" in from ? [] : from;
}

function copyOf(project: Project, contract: string, address: string | undefined): SourceText {
  const copy = readCopy(project, contract, address);
  if (copy) return copy;
  const where = address === undefined ? "its command" : `\`${address}\``;
  throw missing(project, contract, {
    message: `The contract \`${contract}\` was not fetched from ${where} yet.`,
    hint: "Run `rhema generate`, which saves a copy.",
  });
}

/**
 * Returns a document that a contract refers to: a file inside the project, or the copy of a remote one.
 *
 * @returns the text, or why it is not available, as the end of a sentence
 */
export function partText(
  project: Project,
  contract: string,
  name: string,
): SourceText | { readonly why: string; readonly isRemote?: boolean } {
  const settings = project.configuration.contracts[contract] ?? { from: [] };
  if (isUrl(name)) {
    if (!URL.canParse(name) || !isAllowedHost(settings, name))
      return { why: "is on a host that `hosts` does not allow" };
    return readCopy(project, contract, name) ?? { why: "was not fetched yet; run `rhema generate`", isRemote: true };
  }
  const path = resolve(project.root, name);
  if (!isInside(project.root, path)) return { why: "is outside the project" };
  if (!existsSync(path) || !statSync(path).isFile()) return { why: "does not exist" };
  if (!isInside(realpathSync(project.root), realpathSync(path))) return { why: "is outside the project" };
  try {
    return { document: displayPath(project, path), text: readText(path) };
  } catch {
    return { why: "cannot be read" };
  }
}

function filesOf(project: Project, contract: string, source: string): string[] {
  const path = resolve(project.root, source);
  const isGlob = /[*?{[]/.test(source) && !existsSync(path);
  if (isGlob) {
    const found = findFiles(project, [source]);
    if (found.length === 0)
      throw missing(project, contract, {
        message: `No file matches \`${source}\` of the contract \`${contract}\`.`,
      });
    return found;
  }
  if (!existsSync(path))
    throw missing(project, contract, {
      message: `The contract \`${contract}\` should be in \`${source}\`, which does not exist.`,
    });
  if (!statSync(path).isDirectory()) return [path];
  const search = (files: string): string[] => globSync(files, { cwd: path, absolute: true, ignore: neverSearched });
  const schemas = search(schemaFiles);
  const found = schemas.length > 0 ? schemas : search(descriptionFiles);
  if (found.length === 0)
    throw missing(project, contract, {
      message: `The folder \`${source}\` of the contract \`${contract}\` contains no .graphql, .yaml or .json file.`,
    });
  return found;
}

function missing(
  project: Project,
  contract: string,
  {
    message,
    hint = "Correct the path under `contracts`, or put the file there.",
  }: { readonly message: string; readonly hint?: string | undefined },
): Halt {
  const place = { document: project.configName, pointer: `/contracts/${contract}/from` };
  return new Halt(
    [problem("contract.missing", message, { place, hint })],
    exitCodes.unreadable,
    new Map([[project.configName, project.configText]]),
  );
}

export interface QueryTexts {
  /** Query documents, and source files that may contain queries. */
  readonly texts: readonly SourceText[];
  /** A warning for each pattern without a match. */
  readonly problems: readonly Problem[];
}

/**
 * Returns the texts of a contract's query documents, and of the source files among its patterns that contain marks of a
 * query. Files that Rhema wrote never count.
 */
export function queryTexts(project: Project, contract: string): QueryTexts {
  const { queries: patterns = [], tags: named } = project.configuration.contracts[contract] ?? {};
  const tags = tagsOf(contract, named);
  const marks = markPattern(tags);
  const known = new Map<string, SourceText>();
  const problems: Problem[] = [];
  patterns.forEach((pattern, at) => {
    const paths = findFiles(project, [pattern]);
    const fresh = paths.filter((path) => !known.has(path) && (isDocument(path) || isHostFile(path)));
    const found = readAll(project, fresh).filter(({ document, text }) => isDocument(document) || marks.test(text));
    for (const source of found) known.set(resolve(project.root, source.document), source);
    if (paths.some((path) => known.has(path))) return;
    const where = { document: project.configName, pointer: `/contracts/${contract}/queries/${String(at)}` };
    problems.push(nothingFound(contract, pattern, { paths, tags, place: where }));
  });
  const texts = sortedBy(known.values(), ({ document }) => document);
  if (patterns.length > 0)
    project.trace(() => `read ${String(texts.length)} files with queries of ${contract}: ${patterns.join(", ")}`);
  return { texts, problems };
}

function isDocument(path: string): boolean {
  return /\.(graphql|gql)$/i.test(path);
}

function nothingFound(
  contract: string,
  pattern: string,
  {
    paths,
    tags,
    place,
  }: { readonly paths: readonly string[]; readonly tags: readonly string[]; readonly place: Place },
): Problem {
  const hosts = paths.filter(isHostFile).length;
  const message =
    hosts > 0
      ? `\`${pattern}\` matches ${String(hosts)} source file${hosts === 1 ? "" : "s"}, but none contains a query of \`${contract}\`.`
      : `No query document of \`${contract}\` matches \`${pattern}\`.`;
  const marks = tags.map((tag) => `\`${tag}\``).join(" or ");
  const hint =
    hosts > 0
      ? `This is normal in a new project. Otherwise tag the text with ${marks}, or set \`tags\`.`
      : "This is normal in a new project. Otherwise check the pattern. Queries are in .graphql and .gql files and in source files.";
  return problem("query.none", message, { level: "warning", place, hint });
}

/**
 * Returns the absolute paths of the project's files that match, without SDKs and dependencies.
 *
 * @param dot also find copies, whose folder begins with a dot
 */
export function findFiles(project: Project, patterns: readonly string[], dot = false): string[] {
  const written = Object.values(project.configuration.sdks).map(
    ({ into }) => `${into.replace(/^\.\//, "").replace(/\/+$/, "")}/**`,
  );
  return globSync([...patterns], {
    cwd: project.root,
    absolute: true,
    dot,
    ignore: dot ? ["**/node_modules/**", "**/.git/**", ...written] : [...neverSearched, ...written],
  });
}

/** Returns a source of a schema as a pattern for other tools: a folder becomes a pattern for the schemas in it. */
export function schemaPattern(project: Project, source: string): string {
  const path = resolve(project.root, source);
  const isFolder = existsSync(path) && statSync(path).isDirectory();
  return isFolder ? `${displayPath(project, path)}/${schemaFiles}` : source;
}

function readAll(project: Project, paths: readonly string[]): SourceText[] {
  const texts = paths.map((path): SourceText => {
    const document = displayPath(project, path);
    try {
      return { document, text: readText(path) };
    } catch (error) {
      const message = `\`${document}\` cannot be read (${errorCode(error) ?? "unknown reason"}).`;
      throw new Halt(
        [problem("contract.missing", message, { hint: "Check that it is a file that you can read." })],
        exitCodes.unreadable,
      );
    }
  });
  return sortedBy(texts, ({ document }) => document);
}

/** Reads the text of one of the app's files again, for showing places; undefined if it no longer exists. */
export function sourceText(project: Pick<Project, "root">, document: string): string | undefined {
  const path = resolve(project.root, document);
  return existsSync(path) && statSync(path).isFile() ? readText(path) : undefined;
}
