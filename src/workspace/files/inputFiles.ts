import { existsSync, statSync } from "node:fs";
import { join, resolve } from "node:path";
import picomatch from "picomatch";
import { isUrl } from "../../core/rest/documentNames.js";
import { knownParts, readLedger } from "../generate/ledger.js";
import { displayPath, type Project } from "../project/project.js";
import { findFiles, sourceList } from "../sources/sources.js";

/** The inputs of a project's SDKs, as paths in the project with slashes. */
export interface InputFiles {
  /** Files, whether they exist or not. */
  readonly files: readonly string[];
  /** Folders in which every file may be an input. */
  readonly folders: readonly string[];
  /** The globs for query documents and contracts. */
  readonly patterns: readonly string[];
  /** Output folders, in which nothing is ever an input. */
  readonly written: readonly string[];
}

/**
 * Returns the inputs for some contracts and the configuration.
 *
 * @param contracts all if left out
 */
export function inputFiles(project: Project, contracts = Object.keys(project.configuration.contracts)): InputFiles {
  const files = new Set([project.configName, "tsconfig.json"]);
  const folders = new Set<string>();
  const patterns = new Set<string>();
  const parts = knownParts(readLedger(project));
  for (const name of [...contracts].sort()) {
    const settings = project.configuration.contracts[name];
    if (!settings) continue;
    const sources = sourceList(settings);
    if (sources.length === 0 || sources.some(isUrl)) folders.add(`.rhema/copies/${name}`);
    for (const source of sources) {
      if (isUrl(source)) continue;
      const path = resolve(project.root, source);
      const shown = displayPath(project, path);
      if (existsSync(path)) (statSync(path).isDirectory() ? folders : files).add(shown);
      else if (/[*?{[]/.test(source)) patterns.add(shown);
      else files.add(shown);
    }
    for (const part of parts.get(name) ?? []) if (!isUrl(part)) files.add(part);
    for (const pattern of settings.queries ?? []) patterns.add(pattern.replace(/^\.\//, ""));
  }
  const written = Object.values(project.configuration.sdks).map(({ into }) =>
    displayPath(project, resolve(project.root, into)),
  );
  const sorted = (set: Set<string>): string[] => [...set].sort();
  return { files: sorted(files), folders: sorted(folders), patterns: sorted(patterns), written: written.sort() };
}

/**
 * Returns a test whether a path matters to a watcher: inputs, and the folders on the way to them. Paths are relative to
 * the project.
 */
export function inputFilter(inputs: InputFiles): (path: string, isFolder: boolean) => boolean {
  const matchers = inputs.patterns.map((pattern) => ({
    base: picomatch.scan(pattern).base,
    matches: picomatch(pattern, { dot: false }),
  }));
  const exact = new Set(inputs.files);
  const isAt = (path: string, folder: string): boolean => path === folder || path.startsWith(`${folder}/`);
  const leadsTo = (path: string, target: string): boolean => target === path || target.startsWith(`${path}/`);
  return (path, isFolder) => {
    if (path === "" || path === ".") return true;
    if (/(^|\/)(node_modules|\.git)(\/|$)/.test(path)) return false;
    if (inputs.written.some((folder) => isAt(path, folder))) return false;
    if (inputs.folders.some((folder) => folder === "." || isAt(path, folder))) return !path.startsWith(".rhema/pins");
    if (!isFolder) return exact.has(path) || matchers.some(({ matches }) => matches(path));
    return (
      [...inputs.files, ...inputs.folders].some((target) => leadsTo(path, target)) ||
      matchers.some(({ base }) => base === "" || leadsTo(path, base) || isAt(path, base))
    );
  };
}

/** The files that a build tool needs to know to run `generate` only when needed. Paths are relative to the project. */
export interface BuildFiles {
  /** The current input files: the configuration, contracts with all their parts, query documents. */
  readonly inputs: readonly string[];
  /** Globs and folders in which a new file would also be an input. */
  readonly watch: readonly string[];
  /** The written files. */
  readonly outputs: readonly string[];
  /** The folders of Rhema: those of the SDKs, and its own. */
  readonly folders: readonly string[];
}

/** Returns the inputs and outputs of the given SDKs. */
export function buildFiles(project: Project, sdks: readonly string[]): BuildFiles {
  const chosen = new Set(sdks);
  const covers = sdks.flatMap((sdk) => project.configuration.sdks[sdk]?.covers ?? []);
  const { files, folders, patterns } = inputFiles(project, [...new Set(covers)]);
  const found = findFiles(project, [...patterns, ...folders.map((folder) => `${folder}/**`)], true);
  const exists = (path: string): boolean => existsSync(join(project.root, path));
  const inputs = new Set([...files.filter(exists), ...found.map((path) => displayPath(project, path))]);
  const entries = Object.entries(readLedger(project).sdks).filter(([name]) => chosen.has(name));
  const outputs = entries.flatMap(([, entry]) => Object.keys(entry.files).map((path) => `${entry.into}/${path}`));
  const into = sdks.map((sdk) =>
    displayPath(project, resolve(project.root, project.configuration.sdks[sdk]?.into ?? "")),
  );
  return {
    inputs: [...inputs].sort(),
    watch: [...patterns, ...folders.map((folder) => `${folder}/**`)].sort(),
    outputs: outputs.filter(exists).sort(),
    folders: [...new Set(into), ".rhema"].sort(),
  };
}

/**
 * Returns the inputs of a project that were saved since a time.
 *
 * @param time milliseconds since 1970
 */
export function savedSince(project: Project, time: number): string[] {
  return buildFiles(project, Object.keys(project.configuration.sdks)).inputs.filter(
    (path) => (statSync(join(project.root, path), { throwIfNoEntry: false })?.mtimeMs ?? 0) >= time,
  );
}
