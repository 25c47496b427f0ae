import { displayPath, type Project } from "../../project/project.js";
import { findFiles } from "../../sources/sources.js";
import { readText } from "../../files/textFile.js";
import { markupEndings } from "./markup/markupEndings.js";
import { compilerOutputs } from "./importEnding.js";

const sourceFiles = [
  `**/*.{ts,tsx,mts,cts,js,jsx,mjs,cjs,${markupEndings.map((ending) => ending.slice(1)).join(",")}}`,
];
const usualOutputs = ["dist", "build", "out", "coverage"];

/** A source file of the app. */
export interface AppSource {
  readonly document: string;
  readonly text: string;
}

/** Returns the app's own source files, without the output of a compiler. */
export function appSources(project: Project): AppSource[] {
  const outputs = [...usualOutputs, ...compilerOutputs(project.root)].map((folder) => `${folder}/`);
  return findFiles(project, sourceFiles)
    .map((path) => ({ path, document: displayPath(project, path) }))
    .filter(
      ({ document }) =>
        !document.endsWith(".d.ts") &&
        !outputs.some((folder) => document.startsWith(folder) || document.includes(`/${folder}`)),
    )
    .sort((a, b) => (a.document < b.document ? -1 : 1))
    .map(({ path, document }) => ({ document, text: readText(path) }));
}
