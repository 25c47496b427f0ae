import { mkdirSync, readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { build } from "esbuild";
import { compiledModules } from "../../../scripts/compileValidators.mjs";
import { packageRoot } from "../../support/packageRoot.js";
import type { Bug } from "./bugs.js";

// Below the packages, so that the bundle finds the same ones as the tests.
const folder = join(packageRoot, "node_modules/.cache/rhema-planted");
const graphql = pathToFileURL(join(packageRoot, "node_modules/graphql/index.mjs")).href;
let made = 0;

/**
 * Returns the exports of a test module, with a core with a planted bug.
 *
 * @param entry the module's path below `test/proof/`
 * @throws Error if the text that the bug replaces is not in its file exactly once
 */
export async function coreWithBug<Exports>(bug: Omit<Bug, "seeds">, entry: string): Promise<Exports> {
  mkdirSync(folder, { recursive: true });
  const outfile = join(folder, `core-${String(process.pid)}-${String(made++)}.mjs`);
  const buggy = join(packageRoot, "src/core", bug.file);
  const places = readFileSync(buggy, "utf8").split(bug.text).length - 1;
  if (places !== 1)
    throw new Error(`The bug "${bug.name}" has ${String(places)} places to stand instead of one: ${bug.text}`);
  await build({
    entryPoints: [join(packageRoot, "test/proof", entry)],
    outfile,
    bundle: true,
    format: "esm",
    platform: "node",
    packages: "external",
    logLevel: "error",
    plugins: [
      {
        name: "planted",
        setup(bundler) {
          bundler.onResolve({ filter: /^rhema:/ }, ({ path }) => ({ path, namespace: "rhema" }));
          bundler.onLoad({ filter: /.*/, namespace: "rhema" }, ({ path }) => ({
            contents: compiledModules[path]?.() ?? "",
            loader: "js",
          }));
          // Another copy of the implementation refuses a schema that it did not build.
          bundler.onResolve({ filter: /^graphql$/ }, () => ({ path: graphql, external: true }));
          bundler.onLoad({ filter: /src\/core\/.*\.ts$/ }, ({ path }) => {
            const text = readFileSync(path, "utf8");
            return { contents: path === buggy ? text.replace(bug.text, () => bug.instead) : text, loader: "ts" };
          });
        },
      },
    ],
  });
  try {
    return (await import(/* @vite-ignore */ pathToFileURL(outfile).href)) as Exports;
  } finally {
    rmSync(outfile, { force: true });
  }
}
