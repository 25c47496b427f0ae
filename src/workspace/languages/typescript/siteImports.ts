import { dirname, join } from "node:path";
import ts from "typescript";

/** The usual root folders of a site on a file server. */
const usualSites = ["", "public", "static", "www", "site"];

/**
 * Finds modules like a browser, which resolves an address with a leading slash from the root of the site: a folder
 * around the importing file, or a usual root folder.
 *
 * @param root the project's folder, absolute
 */
export function siteImports(root: string, options: ts.CompilerOptions, host: ts.CompilerHost) {
  const cache = ts.createModuleResolutionCache(root, (name) => name, options);
  const resolved = (name: string, file: string): ts.ResolvedModuleWithFailedLookupLocations =>
    ts.resolveModuleName(name, file, options, host, cache);
  return (literals: readonly ts.StringLiteralLike[], file: string): ts.ResolvedModuleWithFailedLookupLocations[] =>
    literals.map(({ text }) => {
      if (!text.startsWith("/")) return resolved(text, file);
      const sites = [...foldersAround(file, root), ...usualSites.map((name) => join(root, name))];
      const found = sites.map((site) => resolved(`.${text}`, join(site, "page.js")));
      return found.find(({ resolvedModule }) => resolvedModule !== undefined) ?? resolved(text, file);
    });
}

/** The folders around a file, up to the project's. */
function foldersAround(file: string, root: string): string[] {
  const found: string[] = [];
  for (let folder = dirname(file); folder.startsWith(root); folder = dirname(folder)) {
    found.push(folder);
    if (folder === root) break;
  }
  return found;
}
