// Builds the package: bundles the program and the core library, and writes the core's type declarations.
import { isAscii } from "node:buffer";
import { createHash } from "node:crypto";
import { execFileSync } from "node:child_process";
import { chmodSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { build } from "esbuild";
import { bundledLicences } from "./bundledLicences.mjs";
import { compiledModules } from "./compileValidators.mjs";

const root = new URL("..", import.meta.url).pathname;
process.chdir(root);
const manifest = JSON.parse(readFileSync("package.json", "utf8"));

/** A hash of all sources of the program, so that a new build never accepts old output. */
function sourceHash(folder) {
  const hash = createHash("sha256");
  const walk = (path) => {
    for (const name of readdirSync(path).sort()) {
      const full = join(path, name);
      if (statSync(full).isDirectory()) walk(full);
      else hash.update(full).update(readFileSync(full, "utf8").replaceAll("\r\n", "\n"));
    }
  };
  walk(folder);
  return hash.digest("hex").slice(0, 16);
}

/** Compiling a schema takes a tenth of a second in every run. Here it is done once. */
const compiledSchemas = {
  name: "compiled-schemas",
  setup(bundler) {
    bundler.onResolve({ filter: /^rhema:/ }, ({ path }) => ({ path, namespace: "rhema" }));
    bundler.onLoad({ filter: /.*/, namespace: "rhema" }, ({ path }) => ({
      contents: compiledModules[path](),
      resolveDir: process.cwd(),
      loader: "js",
    }));
  },
};

/**
 * The command-line package loads the module for child processes, and with it Node's network, for a feature that Rhema
 * does not use. That takes a tenth of the start of every run.
 */
const childProcessWhenAsked = {
  name: "child-process-when-asked",
  setup(bundler) {
    bundler.onResolve({ filter: /^node:child_process$/ }, ({ importer }) =>
      /[\\/]node_modules[\\/]commander[\\/]/.test(importer) ? { path: "spawn", namespace: "when-asked" } : undefined,
    );
    bundler.onLoad({ filter: /.*/, namespace: "when-asked" }, () => ({
      contents: 'exports.spawn = (...given) => require("node:child_process").spawn(...given);',
      resolveDir: process.cwd(),
      loader: "js",
    }));
  },
};

const common = {
  bundle: true,
  platform: "node",
  target: "node20",
  mainFields: ["module", "main"],
  external: Object.keys(manifest.dependencies),
  define: {
    RHEMA_VERSION: JSON.stringify(manifest.version),
    RHEMA_BUILD: JSON.stringify(sourceHash("src")),
    RHEMA_PACKAGES: JSON.stringify(Object.keys(manifest.dependencies)),
  },
  plugins: [compiledSchemas, childProcessWhenAsked],
  minifyWhitespace: true,
  minifySyntax: true,
  // The licences of bundled packages are in a file of their own.
  legalComments: "none",
  sourcemap: "linked",
  sourcesContent: false,
  metafile: true,
  logLevel: "warning",
};

rmSync("dist", { recursive: true, force: true });
const [program, core] = await Promise.all([
  // One file in the older module format: Node 20 can cache compiled code for no other.
  build({
    ...common,
    entryPoints: ["src/cli/program.ts"],
    outfile: "dist/cli/program.cjs",
    format: "cjs",
    define: {
      ...common.define,
      "import.meta.url": "moduleUrl",
      // There is only one copy of the GraphQL implementation here. Without this, it looks for others at every step.
      "process.env.NODE_ENV": '"production"',
    },
    banner: { js: 'const moduleUrl = require("node:url").pathToFileURL(__filename).href;' },
  }),
  build({
    ...common,
    entryPoints: ["src/core/index.ts"],
    outfile: "dist/core/index.js",
    format: "esm",
    // Schemas that the caller built must come from the same implementation.
    external: [...common.external, "graphql"],
    // Packages written as CommonJS load Node's own modules through `require`.
    banner: {
      js: 'import { createRequire as rhemaRequire } from "node:module"; const require = rhemaRequire(import.meta.url);',
    },
  }),
]);
// With any other character, every command would need twice the memory for its own text, and start later.
if (!isAscii(readFileSync("dist/cli/program.cjs")))
  throw new Error("dist/cli/program.cjs is not ASCII. Write characters in regular expressions as \\u escapes.");
writeFileSync("dist/THIRD-PARTY-LICENCES.txt", bundledLicences([program.metafile, core.metafile]));
// This comes last, because its time is the age of the build.
await build({
  ...common,
  entryPoints: ["src/cli/useWorker.ts", "src/cli/main.ts"],
  outdir: "dist/cli",
  format: "esm",
});
chmodSync("dist/cli/main.js", 0o755);
execFileSync(process.execPath, ["node_modules/typescript/lib/tsc.js", "-p", "tsconfig.build.json"], {
  stdio: "inherit",
});
