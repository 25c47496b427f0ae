import { operationLabel, type RestContract } from "../core/contract/model.js";
import type { Hit } from "../core/change/judgedChange.js";
import type { ProjectUses } from "../core/change/impact.js";
import { restCallNames } from "../core/languages/typescript/printRestCall.js";
import { planRest } from "../core/sdk/planRest.js";
import type { ContractConfiguration } from "./configuration.js";
import { compilerOutputs } from "./importEnding.js";
import { displayPath, type Project } from "./project.js";
import { findFiles } from "./sources.js";
import { readText } from "./textFile.js";

const sourceFiles = ["**/*.{ts,tsx,mts,cts,js,jsx,mjs,cjs,vue,svelte}"];
const usualOutputs = ["dist", "build", "out", "coverage"];

export interface Source {
  readonly document: string;
  readonly text: string;
  /** The text with comments and imports blanked out; offsets are those of the file. */
  readonly code: string;
}

/**
 * Where the app's source names the calls of a REST contract, by operation label, and where it names any other word.
 * The search is by name: a call that is nowhere named is not used; one that is named is taken as used there.
 */
export function findCallUses(
  project: Project,
  contract: RestContract,
  settings: ContractConfiguration,
): Pick<ProjectUses, "calls" | "named"> {
  const labels = new Map(
    planRest(contract, settings).calls.map((call) => [restCallNames(call).call, operationLabel(call.operation)]),
  );
  const sources = readSources(project);
  const calls = new Map<string, Hit[]>();
  for (const source of sources) {
    for (const { 0: name, index } of source.code.matchAll(/[\p{ID_Start}$_][\p{ID_Continue}$]*/gu)) {
      const label = labels.get(name);
      if (label !== undefined) calls.set(label, [...(calls.get(label) ?? []), hit(source, name, index, "calls")]);
    }
  }
  const named = (word: string): Hit[] =>
    sources.flatMap((source) => [...occurrences(source.code, word)].map((index) => hit(source, word, index, "names")));
  return { calls, named };
}

function hit({ document }: Source, owner: string, offset: number, kind: string): Hit {
  return { owner, kind, operations: [], place: { document, offset, length: owner.length } };
}

function* occurrences(code: string, word: string): Generator<number> {
  const isPart = (character: string | undefined): boolean =>
    character !== undefined && /[\p{ID_Continue}$]/u.test(character);
  for (let at = code.indexOf(word); at !== -1; at = code.indexOf(word, at + word.length)) {
    if (!isPart(code[at - 1]) && !isPart(code[at + word.length])) yield at;
  }
}

/** The app's own source files; what a compiler wrote does not count. */
export function readSources(project: Project): Source[] {
  const outputs = [...usualOutputs, ...compilerOutputs(project.root)].map((folder) => `${folder}/`);
  return findFiles(project, sourceFiles)
    .map((path) => ({ path, document: displayPath(project, path) }))
    .filter(
      ({ document }) =>
        !document.endsWith(".d.ts") &&
        !outputs.some((folder) => document.startsWith(folder) || document.includes(`/${folder}`)),
    )
    .sort((a, b) => (a.document < b.document ? -1 : 1))
    .map(({ path, document }) => {
      const text = readText(path);
      return { document, text, code: withoutCommentsAndImports(text) };
    });
}

/** Blanks out what names a call without using it, keeping every offset. */
function withoutCommentsAndImports(text: string): string {
  const blank = (part: string): string => part.replace(/[^\n]/g, " ");
  return text
    .replace(/\/\*[\s\S]*?\*\//g, blank)
    .replace(/(?<!:)\/\/[^\n]*/g, blank)
    .replace(/^[ \t]*import\b[^;]*?["'][^"'\n]*["'];?/gm, blank);
}
