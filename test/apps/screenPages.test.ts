import { readdirSync } from "node:fs";
import { join } from "node:path";
import { expect, it } from "vitest";
import { packageRoot } from "../support/packageRoot.js";
import { runNode } from "../support/runNode.js";
import { appProject } from "./support/openedApp.js";
import { shownFiles } from "./support/shownFiles.js";

/**
 * The pages about screens, and how the code of each is checked: by a program of the framework, or by the compiler
 * alone.
 */
const pages: Readonly<Record<string, { readonly checker: readonly string[]; readonly options: object }>> = {
  angular: {
    checker: ["@angular/compiler-cli/bundles/src/bin/ngc.js", "-p", "tsconfig.json"],
    options: { experimentalDecorators: true, useDefineForClassFields: false, exactOptionalPropertyTypes: false },
  },
  react: { checker: ["typescript/bin/tsc", "-p", "."], options: { jsx: "react-jsx" } },
  solid: { checker: ["typescript/bin/tsc", "-p", "."], options: { jsx: "preserve", jsxImportSource: "solid-js" } },
  svelte: { checker: ["svelte-check/bin/svelte-check", "--fail-on-warnings"], options: {} },
  vue: { checker: ["vue-tsc/bin/vue-tsc.js", "-p", "."], options: { jsx: "preserve", jsxImportSource: "vue" } },
};

it("there is a page for each framework", () => {
  expect(readdirSync(join(packageRoot, "docs/screens")).sort()).toEqual(Object.keys(pages).map((page) => `${page}.md`));
});

it.each(Object.entries(pages))(
  "every file on the page of %s compiles in an app",
  async (page, { checker, options }) => {
    const project = await appProject(
      shownFiles(page),
      `{ views: ${page}, fragments: sealed, testing: true }`,
      (config) => config.replace("queries: [", 'queries: ["src/*.{ts,tsx,vue,svelte}", '),
    );
    const compilerOptions = {
      ...{ strict: true, noUncheckedIndexedAccess: true, exactOptionalPropertyTypes: true, verbatimModuleSyntax: true },
      ...{ module: "esnext", moduleResolution: "bundler", target: "es2022", lib: ["es2023", "dom"], types: [] },
      ...{ noEmit: true, skipLibCheck: true },
    };
    const angularCompilerOptions = { strictTemplates: true, strictInjectionParameters: true };
    project.write(
      "tsconfig.json",
      JSON.stringify({ compilerOptions: { ...compilerOptions, ...options }, angularCompilerOptions, include: ["src"] }),
    );
    const [program = "", ...args] = checker;
    const said = await runNode(project.folder, [join(packageRoot, "node_modules", program), ...args]).catch(
      (error: unknown) => Object.values(error as { stdout: string; stderr: string }).join("\n"),
    );
    expect(
      said.replace(/svelte-check found 0 errors and 0 warnings|^(?:Loading|Getting|=+|\s*$).*\n?/gm, "").trim(),
    ).toBe("");
  },
);
