import { existsSync, readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { dirname, join, resolve } from "node:path";
import { parse } from "jsonc-parser";
import { dataMember, isData, listMember, textMember, type Data } from "../../../core/text/parseData.js";
import { isInside } from "../../project/project.js";

const deepestExtends = 8;

/**
 * Returns the extension that relative imports need in a folder, from the closest tsconfig.json (with `extends`): none
 * if the compiler leaves it to a bundler, `.js` otherwise.
 */
export function importEnding(root: string, folder: string): "js" | "bare" {
  const config = nearestConfig(root, folder);
  const options = config === undefined ? {} : compilerOptions(config, 0);
  const resolution = (options.moduleResolution ?? "").toLowerCase();
  const module = (options.module ?? "").toLowerCase();
  if (resolution === "bundler" || resolution === "node" || resolution === "node10") return "bare";
  return resolution === "" && ["preserve", "commonjs"].includes(module) ? "bare" : "js";
}

/**
 * Returns the folder into which the project's own tsconfig.json compiles, relative to the project; an empty list if it
 * has none.
 */
export function compilerOutputs(root: string): string[] {
  const path = join(root, "tsconfig.json");
  const data = existsSync(path)
    ? (parse(readFileSync(path, "utf8"), [], { allowTrailingComma: true }) as unknown)
    : undefined;
  const folder = isData(data) ? textMember(dataMember(data, "compilerOptions") ?? {}, "outDir") : undefined;
  return folder === undefined ? [] : [folder.replace(/^\.\//, "").replace(/\/+$/, "")];
}

function nearestConfig(root: string, folder: string): string | undefined {
  for (let at = folder; at === root || isInside(root, at); at = dirname(at)) {
    const path = join(at, "tsconfig.json");
    if (existsSync(path)) return path;
    if (at === root) return undefined;
  }
  return undefined;
}

interface ModuleOptions {
  readonly module?: string;
  readonly moduleResolution?: string;
}

function compilerOptions(path: string, depth: number): ModuleOptions {
  if (depth > deepestExtends || !existsSync(path)) return {};
  const data = parse(readFileSync(path, "utf8"), [], { allowTrailingComma: true }) as unknown;
  if (!isData(data)) return {};
  const bases = (Array.isArray(data["extends"]) ? (data["extends"] as unknown[]) : [data["extends"]]).filter(
    (base): base is string => typeof base === "string",
  );
  const inherited = bases.map((base) => compilerOptions(basePath(path, base), depth + 1));
  const own = Object.assign({}, ...inherited, ownOptions(data)) as ModuleOptions;
  // A configuration without files only refers to others, of which the first is the app's.
  const [reference] = listMember(data, "files")?.length === 0 ? (listMember(data, "references") ?? []) : [];
  const target = isData(reference) ? textMember(reference, "path") : undefined;
  return target === undefined ? own : { ...own, ...compilerOptions(referencePath(path, target), depth + 1) };
}

function referencePath(from: string, reference: string): string {
  const path = resolve(dirname(from), reference);
  return path.endsWith(".json") ? path : join(path, "tsconfig.json");
}

function ownOptions(data: Data): ModuleOptions {
  const options = dataMember(data, "compilerOptions") ?? {};
  const module = textMember(options, "module");
  const moduleResolution = textMember(options, "moduleResolution");
  return {
    ...(module === undefined ? {} : { module }),
    ...(moduleResolution === undefined ? {} : { moduleResolution }),
  };
}

function basePath(from: string, base: string): string {
  if (base.startsWith(".") || base.startsWith("/")) {
    const path = resolve(dirname(from), base);
    return path.endsWith(".json") ? path : `${path}.json`;
  }
  try {
    return createRequire(from).resolve(base);
  } catch {
    // A base that is not installed is ignored. The app's own compiler reports it.
    return "";
  }
}
