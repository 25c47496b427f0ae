import { applyEdits, modify } from "jsonc-parser";
import { dataMember, isData, parseData } from "../../core/text/parseData.js";

export interface ManifestScripts {
  /** The manifest with the added scripts. */
  readonly text: string;
  readonly added: readonly string[];
  /** Existing scripts that are not changed and should generate too. */
  readonly left: readonly string[];
}

const command = "rhema generate";

/**
 * Adds scripts to a package.json: one to generate, and one that runs before each existing one of `dev`, `start` and
 * `build`. Existing scripts are never changed, and the file keeps its formatting.
 *
 * @returns undefined if the manifest cannot be read
 */
export function withScripts(manifest: string): ManifestScripts | undefined {
  const parsed = parseData(manifest);
  if (!parsed.ok || !isData(parsed.data)) return undefined;
  const scripts = dataMember(parsed.data, "scripts") ?? {};
  const wanted = [
    "sdk",
    ...["dev", "start", "build"].filter((name) => Object.hasOwn(scripts, name)).map((name) => `pre${name}`),
  ];
  const runs = (name: string): boolean => String(scripts[name]).includes(command);
  const added = wanted.filter((name) => !Object.hasOwn(scripts, name));
  const left = wanted.filter((name) => Object.hasOwn(scripts, name) && !runs(name));
  const indent = /^([ \t]+)"/m.exec(manifest)?.[1] ?? "  ";
  const formattingOptions = {
    insertSpaces: !indent.includes("\t"),
    tabSize: indent.includes("\t") ? 1 : indent.length,
    eol: manifest.includes("\r\n") ? "\r\n" : "\n",
  };
  let text = manifest;
  for (const name of added) text = applyEdits(text, modify(text, ["scripts", name], command, { formattingOptions }));
  return { text, added, left };
}

/** Returns whether the manifest has a package among its dependencies. */
export function dependsOn(manifest: string, dependency: string): boolean {
  const parsed = parseData(manifest);
  if (!parsed.ok || !isData(parsed.data)) return false;
  const { data } = parsed;
  return ["dependencies", "devDependencies"].some((key) => dependency in (dataMember(data, key) ?? {}));
}
