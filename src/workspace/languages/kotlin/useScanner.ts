import { existsSync, readdirSync } from "node:fs";
import { join } from "node:path";
import type { SourceUse } from "../../../core/use/sourceUse.js";
import { isInside, type Project } from "../../project/project.js";
import { readText } from "../../files/textFile.js";
import type { ImportedName, MadeFiles, SdkPart, UseScanner } from "../languageTools.js";
import { readSource } from "./source/declarations.js";
import { javaImports, javaUses } from "./source/javaUses.js";
import { kotlinUses } from "./source/kotlinUses.js";
import { appSources, sdkSources } from "../source/sourcesOnDisk.js";

const patterns = ["**/*.kt", "**/*.kts"];
const besidePatterns = ["**/*.java"];
const outputs = /(?:^|\/)(?:build|out|target|bin)\//;

/** Returns the scanner for uses of SDKs in the app's Kotlin source, and in Java next to it. */
export function useScanner(): UseScanner {
  return {
    hasSources: (project) => appSources(project, patterns, outputs).length > 0,
    isWritten: ({ folder, connect }) => existsSync(join(folder, `${connect}.kt`)),
    find: (project, parts, made) => Promise.resolve(found(project, parts, made)),
    importsFrom,
  };
}

function found(project: Project, parts: readonly SdkPart[], made: MadeFiles | undefined): SourceUse[] {
  const app = appSources(project, patterns, outputs);
  const java = appSources(project, besidePatterns, outputs);
  return sdkSources(parts, made, ".kt").flatMap((source) => [...kotlinUses(app, source), ...javaUses(java, source)]);
}

/** The names that the app imports from the packages of an SDK. */
function importsFrom(project: Project, folder: string): ImportedName[] {
  const packages = new Set(
    readdirSync(folder, { recursive: true, encoding: "utf8" })
      .filter((path) => path.endsWith(".kt") && isInside(folder, join(folder, path)))
      .map((path) => readSource(path, readText(join(folder, path)), true).package),
  );
  const inKotlin = appSources(project, patterns, outputs).flatMap(({ document, text }) =>
    [...readSource(document, text, false).imports.values()].map(({ whole, token }) => ({
      document,
      whole,
      offset: token.offset,
    })),
  );
  const inJava = appSources(project, besidePatterns, outputs).flatMap(({ document, text }) =>
    javaImports(text).map((each) => ({ document, ...each })),
  );
  return [...inKotlin, ...inJava].flatMap(({ document, whole, offset }) => {
    const at = whole.lastIndexOf(".");
    return packages.has(whole.slice(0, at)) ? [{ document, name: whole.slice(at + 1), offset }] : [];
  });
}
