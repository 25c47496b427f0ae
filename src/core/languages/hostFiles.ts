import { camelCase } from "../text/words.js";

/** The glob, without a folder, of source files that may contain GraphQL. */
export const hostGlob = "*.{ts,tsx,js,jsx,mjs,cjs,mts,cts,vue,svelte}";

const hostEnding = /\.(?:[cm]?[jt]s|[jt]sx|vue|svelte)$/i;

/** Returns whether a document is source code that may contain GraphQL, by its name. */
export function isHostFile(document: string): boolean {
  return hostEnding.test(document);
}

/** The tags that mark GraphQL by default. */
export const usualTags: readonly string[] = ["gql", "graphql"];

/**
 * Returns the SDK's own tag for the queries of a contract.
 *
 * @param contract the contract's name in the configuration
 */
export function ownTag(contract: string): string {
  return `${camelCase(contract)}Queries`;
}

/** Returns the tags that mark the queries of a contract. @param tags the configured ones */
export function tagsOf(contract: string, tags: readonly string[] = usualTags): string[] {
  return [...tags, ownTag(contract)];
}

/**
 * Returns a pattern for source code that may contain marked GraphQL. Code without a match does not have to be parsed.
 */
export function markPattern(tags: readonly string[]): RegExp {
  const names = tags.map((tag) => tag.replace(/[$]/g, "\\$&")).join("|");
  const marks = String.raw`/\*\s*graphql\s*\*/|["'\x60]\s*#\s*graphql\b`;
  return new RegExp(names === "" ? marks : String.raw`(?<![\w$])(?:${names})\s*[\x60(<]|${marks}`, "i");
}
