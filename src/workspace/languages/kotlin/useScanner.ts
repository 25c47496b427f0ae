import { existsSync, readdirSync, statSync } from "node:fs";
import { dirname, join } from "node:path";
import type { SourceUse } from "../../../core/use/sourceUse.js";
import { displayPath, isInside, type Project } from "../../project.js";
import { findFiles } from "../../sources.js";
import { readText } from "../../textFile.js";
import type { ImportedName, MadeFiles, SdkPart, UseScanner } from "../languageTools.js";
import { readSource } from "./source/declarations.js";
import { javaImports, javaUses } from "./source/javaUses.js";
import { kotlinUses } from "./source/kotlinUses.js";
import type { SourceText } from "../source/sdkSource.js";

const patterns = ["**/*.kt", "**/*.kts"];
const besidePatterns = ["**/*.java"];
const outputs = /(?:^|\/)(?:build|out|target|bin)\//;

/** What the app's Kotlin source, and Java beside it, uses of SDKs. */
export function useScanner(): UseScanner {
  return {
    hasSources: (project) => appSources(project, patterns).length > 0,
    isWritten: ({ folder, connect }) => existsSync(join(folder, `${connect}.kt`)),
    find: (project, parts, made) => Promise.resolve(found(project, parts, made)),
    importsFrom,
  };
}

function found(project: Project, parts: readonly SdkPart[], made: MadeFiles | undefined): SourceUse[] {
  const app = appSources(project, patterns);
  const java = appSources(project, besidePatterns);
  // Source has values of other contracts, of other SDKs and of the runtime too, whose types have to be known.
  const folders = [...new Set(parts.flatMap(({ folder }) => [folder, ...foldersBeside(folder)]))];
  const texts = new Map(folders.map((folder) => [folder, sourcesIn(folder, made)]));
  return parts.flatMap(({ sdk, folder, connect }) => {
    const files = texts.get(folder) ?? [];
    const others = folders.flatMap((each) => (each === folder ? [] : (texts.get(each) ?? [])));
    const source = { name: sdk, connect, files, others };
    return [...kotlinUses(app, source), ...javaUses(java, source)];
  });
}

/** The other parts of the SDK: those of its contracts, and the runtime. */
function foldersBeside(folder: string): string[] {
  const whole = dirname(folder);
  const there = existsSync(whole) ? readdirSync(whole, { withFileTypes: true }) : [];
  const names = new Set(["wire", ...there.flatMap((entry) => (entry.isDirectory() ? [entry.name] : []))]);
  return [...names].map((name) => join(whole, name)).filter((path) => path !== folder);
}

function appSources(project: Project, wanted: readonly string[]): SourceText[] {
  return findFiles(project, wanted)
    .map((path) => ({ path, document: displayPath(project, path) }))
    .filter(({ document }) => !outputs.test(document))
    .sort((a, b) => (a.document < b.document ? -1 : 1))
    .map(({ path, document }) => ({ document, text: readText(path) }));
}

/** Kotlin files right in a folder: those that stand for them, or those on disk. */
function sourcesIn(folder: string, made: MadeFiles | undefined): SourceText[] {
  const texts = new Map<string, string>();
  if (made?.replaced.includes(folder) !== true && existsSync(folder) && statSync(folder).isDirectory())
    for (const name of readdirSync(folder).sort())
      if (name.endsWith(".kt")) texts.set(join(folder, name), readText(join(folder, name)));
  for (const [path, text] of made?.texts ?? [])
    if (path.endsWith(".kt") && dirname(path) === folder) texts.set(path, text);
  return [...texts].map(([document, text]) => ({ document, text }));
}

/** Names that the app imports from the packages of an SDK. */
function importsFrom(project: Project, folder: string): ImportedName[] {
  const packages = new Set(
    readdirSync(folder, { recursive: true, encoding: "utf8" })
      .filter((path) => path.endsWith(".kt") && isInside(folder, join(folder, path)))
      .map((path) => readSource(path, readText(join(folder, path)), true).package),
  );
  const inKotlin = appSources(project, patterns).flatMap(({ document, text }) =>
    [...readSource(document, text, false).imports.values()].map(({ whole, token }) => ({
      document,
      whole,
      offset: token.offset,
    })),
  );
  const inJava = appSources(project, besidePatterns).flatMap(({ document, text }) =>
    javaImports(text).map((each) => ({ document, ...each })),
  );
  return [...inKotlin, ...inJava].flatMap(({ document, whole, offset }) => {
    const at = whole.lastIndexOf(".");
    return packages.has(whole.slice(0, at)) ? [{ document, name: whole.slice(at + 1), offset }] : [];
  });
}
