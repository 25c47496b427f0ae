import { camelCase } from "../text/words.js";

/** Where source files lie that may hold GraphQL, as a glob without a folder. */
export const hostGlob = "*.{ts,tsx,js,jsx,mjs,cjs,mts,cts,vue,svelte}";

const hostEnding = /\.(?:[cm]?[jt]s|[jt]sx|vue|svelte)$/i;

/** Whether a document is source code that may hold GraphQL, by its name. */
export function isHostFile(document: string): boolean {
  return hostEnding.test(document);
}

/** Tags that mark GraphQL unless the configuration names others. */
export const usualTags: readonly string[] = ["gql", "graphql"];

/** The tag that an SDK has for the queries of a contract, from its name in the configuration. */
export function ownTag(contract: string): string {
  return `${camelCase(contract)}Queries`;
}

/** The tags that mark the queries of a contract. @param tags what the configuration names */
export function tagsOf(contract: string, tags: readonly string[] = usualTags): string[] {
  return [...tags, ownTag(contract)];
}

/** Matches source code that may hold marked GraphQL; code without a match need not be parsed. */
export function markPattern(tags: readonly string[]): RegExp {
  const names = tags.map((tag) => tag.replace(/[$]/g, "\\$&")).join("|");
  const marks = String.raw`/\*\s*graphql\s*\*/|["'\x60]\s*#\s*graphql\b`;
  return new RegExp(names === "" ? marks : String.raw`(?<![\w$])(?:${names})\s*[\x60(<]|${marks}`, "i");
}
