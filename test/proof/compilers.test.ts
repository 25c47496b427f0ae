import { mkdirSync, symlinkSync } from "node:fs";
import { dirname, join } from "node:path";
import { expect, it } from "vitest";
import { packageRoot } from "../support/packageRoot.js";
import { runNode } from "../support/runNode.js";
import { demoProject, type TemporaryProject } from "../support/temporaryProject.js";

/** The compilers of apps: the oldest supported one, ours, and those of new projects. */
const compilers = {
  "5.0": "typescript-5.0/bin/tsc",
  "5.9": "typescript/bin/tsc",
  "6": "typescript-6/bin/tsc",
  "7": "typescript-7/bin/tsc",
};

const strictly = {
  strict: true,
  noUncheckedIndexedAccess: true,
  exactOptionalPropertyTypes: true,
  noUnusedLocals: true,
  noUnusedParameters: true,
  noImplicitReturns: true,
  noPropertyAccessFromIndexSignature: true,
  verbatimModuleSyntax: true,
  isolatedModules: true,
  skipLibCheck: true,
  noEmit: true,
};
const bundled = { ...strictly, module: "ESNext", moduleResolution: "Bundler", types: [] };

/**
 * The configurations of projects: for a bundler with the smallest libraries in the docs, for Node, and the newest
 * defaults.
 */
const configurations: Record<string, { readonly options: object; readonly since?: string }> = {
  "the library of 2020 and the plain DOM": { options: { ...bundled, target: "ES2020", lib: ["ES2020", "DOM"] } },
  "the library of 2022 and the plain DOM": { options: { ...bundled, target: "ES2022", lib: ["ES2022", "DOM"] } },
  "a bundler that reads sources": {
    options: {
      ...bundled,
      target: "ES2022",
      lib: ["ES2022", "DOM", "DOM.Iterable"],
      jsx: "react-jsx",
      moduleDetection: "force",
      allowImportingTsExtensions: true,
      useDefineForClassFields: true,
      noFallthroughCasesInSwitch: true,
    },
  },
  "types that are erased": {
    since: "5.9",
    options: {
      ...bundled,
      target: "ES2023",
      lib: ["ES2023", "DOM"],
      erasableSyntaxOnly: true,
      noUncheckedSideEffectImports: true,
    },
  },
  "Node, with its own types only": {
    options: { ...strictly, target: "ES2022", lib: ["ES2022"], module: "NodeNext", types: ["node"] },
  },
  "declarations for others": {
    options: {
      ...strictly,
      target: "ES2022",
      lib: ["ES2022", "DOM"],
      module: "NodeNext",
      types: [],
      declaration: true,
    },
  },
  "a project of today, with everything by itself": {
    since: "5.9",
    options: {
      ...strictly,
      target: "ESNext",
      module: "NodeNext",
      types: [],
      declaration: true,
      moduleDetection: "force",
    },
  },
};

/** The demo's SDK by default, and with everything that settings add. */
async function project(): Promise<TemporaryProject> {
  const made = demoProject();
  const plain = made.read("rhema.yaml");
  const into = /^ {4}into: (.*)$/m.exec(plain)?.[1] ?? "";
  const settings =
    "{ dates: decoded, int64: bigint, unions: open, failures: return, verify: answers, testing: true, cached: true, views: [angular, react, solid, svelte, vue], manifest: true, fragments: sealed, schema: true }";
  made.write(
    "rhema.yaml",
    `${plain.replace(/^guard:[\s\S]*$/m, "")}\n  full:\n    language: typescript\n    covers: [berths, passages]\n    into: src/full\n    settings: ${settings}\n`,
  );
  const { code, err } = await made.run(["generate"]);
  expect([code, code === 0 ? "" : err]).toEqual([0, ""]);
  mkdirSync(dirname(made.path("node_modules/@types/node")), { recursive: true });
  const frameworks = ["@angular", "@types/react", "csstype", "rxjs", "solid-js", "svelte", "@vue", "vue"];
  for (const name of ["@types/node", "undici-types", ...frameworks])
    symlinkSync(join(packageRoot, "node_modules", name), made.path(`node_modules/${name}`));
  made.write("tsconfig.json", JSON.stringify({ compilerOptions: {}, include: [into, "src/full"] }));
  return made;
}

const cases = Object.entries(compilers).flatMap(([version, path]) =>
  Object.entries(configurations)
    .filter(([, { since = "5.0" }]) => Number(version) >= Number(since))
    .map(([name, { options }]) => [version, name, path, options] as const),
);

it("an SDK compiles with every supported compiler and the options that apps use", async () => {
  const made = await project();
  const { include } = JSON.parse(made.read("tsconfig.json")) as { include: string[] };
  const complaints: string[] = [];
  for (const [version, name, path, options] of cases) {
    made.write("tsconfig.tried.json", JSON.stringify({ compilerOptions: options, include }));
    const tried = [join(packageRoot, "node_modules", path), "-p", "tsconfig.tried.json"];
    const said = await runNode(made.folder, tried).catch((error: unknown) =>
      String((error as { stdout?: unknown }).stdout),
    );
    if (said !== "") complaints.push(`${version}, ${name}:\n${said.slice(0, 2_000)}`);
  }
  expect(complaints).toEqual([]);
  expect(cases.length).toBeGreaterThan(20);
});
