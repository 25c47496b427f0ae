import { existsSync, readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { join } from "node:path";
import ts from "typescript";
import type { AppChecker } from "../checkedApps.js";

/**
 * Returns the checker that an app has installed: that of its framework if it has components, otherwise its TypeScript;
 * undefined if it has none, or no configuration for it.
 *
 * @param root the absolute path of the app's folder
 * @param documents the app's source files
 */
export function appChecker(root: string, documents: readonly string[]): AppChecker | undefined {
  const configuration = join(root, "tsconfig.json");
  if (!existsSync(configuration)) return undefined;
  const has = (ending: string): boolean => documents.some((each) => each.endsWith(ending));
  const byFramework =
    (has(".svelte") ? svelteChecker(root) : undefined) ?? (has(".vue") ? programOf(root, "vue-tsc") : undefined);
  if (byFramework && "command" in byFramework) return byFramework;
  const program = byFramework ?? programOf(root, "typescript", "tsc");
  if (!program) return undefined;
  const mode = onlyRefers(configuration) ? ["-b"] : ["-p", ".", "--noEmit"];
  return {
    command: { node: [program.path, ...mode, "--pretty", "false"] },
    shown: `${program.name} ${mode.join(" ")}`,
  };
}

/** A checker that reads one configuration: the one with the components. */
function svelteChecker(root: string): AppChecker | undefined {
  const program = programOf(root, "svelte-check");
  if (!program) return undefined;
  const own = join(root, "tsconfig.app.json");
  const tsconfig =
    existsSync(own) && onlyRefers(join(root, "tsconfig.json")) ? "./tsconfig.app.json" : "./tsconfig.json";
  const args = ["--tsconfig", tsconfig, "--output", "machine", "--threshold", "error"];
  return { command: { node: [program.path, ...args] }, shown: `svelte-check --tsconfig ${tsconfig}` };
}

/** A program in one of the app's packages. */
function programOf(root: string, id: string, name = id): { readonly path: string; readonly name: string } | undefined {
  const folder = packageOf(root, id);
  if (folder === undefined) return undefined;
  const { bin } = JSON.parse(readFileSync(join(folder, "package.json"), "utf8")) as {
    bin?: string | Readonly<Record<string, string>>;
  };
  const path = typeof bin === "string" ? bin : bin?.[name];
  return path === undefined ? undefined : { path: join(folder, path), name };
}

function packageOf(root: string, id: string): string | undefined {
  for (const folder of createRequire(join(root, "package.json")).resolve.paths(id) ?? [])
    if (existsSync(join(folder, id, "package.json"))) return join(folder, id);
  return undefined;
}

/** Returns the version of TypeScript that an app has installed, from its package. */
export function installedTypescript(root: string): string | undefined {
  const folder = packageOf(root, "typescript");
  if (folder === undefined) return undefined;
  return (JSON.parse(readFileSync(join(folder, "package.json"), "utf8")) as { version?: string }).version;
}

/** Whether a configuration has no files of its own, and only refers to others. */
function onlyRefers(path: string): boolean {
  const { config } = ts.readConfigFile(path, (name) => ts.sys.readFile(name)) as {
    config?: { files?: unknown[]; include?: unknown[]; references?: unknown[] };
  };
  return (config?.references?.length ?? 0) > 0 && config?.files?.length === 0 && config.include === undefined;
}
