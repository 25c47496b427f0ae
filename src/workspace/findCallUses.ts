import { operationLabel, type RestContract } from "../core/contract/model.js";
import type { Hit } from "../core/change/impact.js";
import { restCallNames } from "../core/languages/typescript/printRestCall.js";
import { planRest } from "../core/sdk/planRest.js";
import type { ContractConfiguration } from "./configuration.js";
import { displayPath, type Project } from "./project.js";
import { findFiles } from "./sources.js";
import { readText } from "./textFile.js";

const sourceFiles = ["**/*.{ts,tsx,mts,cts,js,jsx,mjs,cjs,vue,svelte}"];

/**
 * Where the app's source names the calls of a REST contract, by operation label. The search is by name: a call that
 * is nowhere named is not used; one that is named is taken as used there.
 */
export function findCallUses(project: Project, contract: RestContract, settings: ContractConfiguration): Map<string, Hit[]> {
  const labels = new Map(planRest(contract, settings).calls.map((call) => [restCallNames(call).call, operationLabel(call.operation)]));
  const uses = new Map<string, Hit[]>();
  for (const path of findFiles(project, sourceFiles)) {
    const document = displayPath(project, path);
    for (const { name, offset } of wordsIn(readText(path), labels)) {
      const label = labels.get(name) ?? "";
      uses.set(label, [...(uses.get(label) ?? []), { owner: name, kind: "calls", place: { document, offset, length: name.length } }]);
    }
  }
  return uses;
}

function wordsIn(text: string, wanted: ReadonlyMap<string, string>): { name: string; offset: number }[] {
  const found: { name: string; offset: number }[] = [];
  const code = withoutCommentsAndImports(text);
  for (const match of code.matchAll(/[\p{ID_Start}$_][\p{ID_Continue}$]*/gu)) {
    if (wanted.has(match[0])) found.push({ name: match[0], offset: match.index });
  }
  return found;
}

/** Blanks out what names a call without using it, keeping every offset. */
function withoutCommentsAndImports(text: string): string {
  const blank = (part: string): string => part.replace(/[^\n]/g, " ");
  return text
    .replace(/\/\*[\s\S]*?\*\//g, blank)
    .replace(/(^|[^:])\/\/[^\n]*/g, blank)
    .replace(/^\s*import\b[\s\S]*?["'][^"'\n]*["'];?/gm, blank);
}
