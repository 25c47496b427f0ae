import { existsSync, readdirSync, statSync } from "node:fs";
import { dirname, join } from "node:path";
import { displayPath, type Project } from "../../project/project.js";
import { findFiles } from "../../sources/sources.js";
import { readText } from "../../files/textFile.js";
import type { MadeFiles, SdkPart } from "../languageTools.js";
import type { SdkSource, SourceText } from "./sdkSource.js";

/** Returns the app's own files, sorted by name. @param outputs matches the output of a build, by the path for people */
export function appSources(project: Project, patterns: readonly string[], outputs: RegExp): SourceText[] {
  return findFiles(project, patterns)
    .map((path) => ({ path, document: displayPath(project, path) }))
    .filter(({ document }) => !outputs.test(document))
    .sort((a, b) => (a.document < b.document ? -1 : 1))
    .map(({ path, document }) => ({ document, text: readText(path) }));
}

/**
 * Returns the source of parts of SDKs, with the files next to them: an app also has values of other contracts, of other
 * SDKs and of the runtime, whose types must be known.
 *
 * @param ending the extension of the files
 */
export function sdkSources(parts: readonly SdkPart[], made: MadeFiles | undefined, ending: string): SdkSource[] {
  const folders = [...new Set(parts.flatMap(({ folder }) => [folder, ...foldersBeside(folder, made)]))];
  const texts = new Map(folders.map((folder) => [folder, sourcesIn(folder, made, ending)]));
  return parts.map(({ sdk, folder, connect }) => ({
    name: sdk,
    connect,
    files: texts.get(folder) ?? [],
    others: folders.flatMap((each) => (each === folder ? [] : (texts.get(each) ?? []))),
  }));
}

/** The other parts of the SDK: those of its contracts, and the runtime. */
function foldersBeside(folder: string, made: MadeFiles | undefined): string[] {
  const whole = dirname(folder);
  const there = existsSync(whole) ? readdirSync(whole, { withFileTypes: true }) : [];
  const written = there.flatMap((entry) => (entry.isDirectory() ? [join(whole, entry.name)] : []));
  const others = [...(made?.texts.keys() ?? [])].map((path) => dirname(path)).filter((path) => dirname(path) === whole);
  return [...new Set([...written, ...others])].filter((path) => path !== folder);
}

/** The files directly in a folder: those in memory, or those on disk. */
function sourcesIn(folder: string, made: MadeFiles | undefined, ending: string): SourceText[] {
  const texts = new Map<string, string>();
  if (made?.replaced.includes(folder) !== true && existsSync(folder) && statSync(folder).isDirectory())
    for (const name of readdirSync(folder).sort())
      if (name.endsWith(ending)) texts.set(join(folder, name), readText(join(folder, name)));
  for (const [path, text] of made?.texts ?? [])
    if (path.endsWith(ending) && dirname(path) === folder) texts.set(path, text);
  return [...texts].map(([document, text]) => ({ document, text }));
}
