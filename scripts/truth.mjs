// Changes contracts at random, and compares the predictions with compilers and released apps. Usage: npm run truth [--
// SINGLE [MULTIPLE [WORDS [SEED]]]]; the numbers of cases, and words of the kinds of edits
import { mkdirSync, rmSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { build } from "esbuild";
import { compiledModules } from "./compileValidators.mjs";

const root = new URL("..", import.meta.url).pathname;
process.chdir(root);
const folder = "node_modules/.truth";
mkdirSync(folder, { recursive: true });
const outfile = join(folder, `run-${process.pid}.mjs`);
await build({
  entryPoints: ["truth/run.ts"],
  outfile,
  bundle: true,
  platform: "node",
  format: "esm",
  target: "node20",
  packages: "external",
  logLevel: "error",
  plugins: [
    {
      name: "compiled validators",
      setup(bundler) {
        bundler.onResolve({ filter: /^rhema:/ }, ({ path }) => ({ path, namespace: "compiled" }));
        bundler.onLoad({ filter: /.*/, namespace: "compiled" }, ({ path }) => ({
          contents: compiledModules[path](),
          resolveDir: root,
        }));
      },
    },
  ],
});
try {
  await import(pathToFileURL(join(root, outfile)).href);
} finally {
  rmSync(outfile, { force: true });
}
