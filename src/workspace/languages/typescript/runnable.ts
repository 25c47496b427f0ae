import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join, posix } from "node:path";
import { pathToFileURL } from "node:url";
import ts from "typescript";
import type { ModuleImporter } from "../../files/moduleImporter.js";
import type { FoundCall } from "../../try/foundCall.js";

/** Returns the paths of the modules with a call and with its connection, in this order. */
export function modulesOf({ contract, lowered }: Pick<FoundCall, "contract" | "lowered">): [string, string] {
  const [file] = lowered.protocol === "rest" ? lowered.files : lowered.calls;
  return [`${contract}/calls/${file?.file ?? ""}.ts`, `${contract}/connect.ts`];
}

/**
 * Returns modules of an SDK as JavaScript that Node runs as it is, with all modules that they import, by path with the
 * extension `.mjs`.
 *
 * @param files the SDK's TypeScript files by path
 * @param entries the paths of the first modules
 */
export function runnableModules(files: ReadonlyMap<string, string>, entries: readonly string[]): Map<string, string> {
  const modules = new Map<string, string>();
  const open = [...entries];
  for (const path of open) {
    const text = files.get(path);
    const target = path.replace(/\.ts$/, ".mjs");
    if (text === undefined || modules.has(target)) continue;
    const { outputText } = ts.transpileModule(text, {
      compilerOptions: {
        target: ts.ScriptTarget.ES2022,
        module: ts.ModuleKind.ESNext,
        verbatimModuleSyntax: true,
      },
    });
    const imported = /((?:from|import) ")(\.[^"]+)\.js"/g;
    for (const [, , name = ""] of outputText.matchAll(imported))
      open.push(`${posix.join(posix.dirname(path), name)}.ts`);
    modules.set(target, outputText.replace(imported, '$1$2.mjs"'));
  }
  return modules;
}

/** Returns the exports of modules, by path. The modules are written to a temporary folder while they are loaded. */
export async function loadModules(
  modules: ReadonlyMap<string, string>,
  paths: readonly string[],
  importer: ModuleImporter,
): Promise<Readonly<Record<string, unknown>>> {
  const folder = mkdtempSync(join(tmpdir(), "rhema-try-"));
  try {
    for (const [path, text] of modules) {
      mkdirSync(dirname(join(folder, path)), { recursive: true });
      writeFileSync(join(folder, path), text);
    }
    const loaded = await Promise.all(
      paths.map(async (path) => (await importer(pathToFileURL(join(folder, path)).href)) as object),
    );
    return Object.assign({}, ...loaded) as Record<string, unknown>;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
