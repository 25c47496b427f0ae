import { describe, expect, it } from "vitest";
import { quaysContract, quaysProject, text } from "../support/quaysProject.js";
import type { TemporaryProject } from "../support/temporaryProject.js";

interface Proved {
  readonly contracts: {
    readonly changes: {
      readonly code: string;
      readonly errors: { readonly file: string; readonly line: number; readonly code: string }[];
    }[];
  }[];
  readonly proof: { readonly unexplained: object[]; readonly before: { readonly file: string }[] };
}

/** The proof if `note` may be absent or was removed. */
async function proved(project: TemporaryProject, fields: object, needed?: readonly string[]) {
  expect((await project.run(["generate"])).code).toBe(0);
  project.write("quays.json", quaysContract(fields, needed));
  const { out, err } = await project.run(["impact", "--prove", "--json"]);
  expect(err).toBe("");
  const { contracts, proof } = JSON.parse(out) as Proved;
  const told = contracts.flatMap(({ changes }) =>
    changes.flatMap(({ code, errors }) =>
      errors.map((each) => `${code} ${each.file}:${String(each.line)} ${each.code}`),
    ),
  );
  return { told, ...proof };
}

const reading = `import { load } from "./quays.js";
export const lengths = async (): Promise<number[]> => (await load()).map((quay) => quay.note.length);
`;
/** As in a fresh project: one configuration that refers to others, without a line about strictness. */
const referring = {
  "tsconfig.json": JSON.stringify({ files: [], references: [{ path: "./tsconfig.app.json" }] }),
  "tsconfig.app.json": JSON.stringify({
    compilerOptions: {
      tsBuildInfoFile: "./node_modules/.tmp/app.tsbuildinfo",
      target: "ES2022",
      module: "ESNext",
      moduleResolution: "Bundler",
      noEmit: true,
      skipLibCheck: true,
    },
    include: ["src"],
  }),
};

describe("the app's own checker", () => {
  it.each([
    ["typescript-7", ["answer.field.now-optional src/list.ts:2 TS18048"]],
    ["typescript-6", ["answer.field.now-optional src/list.ts:2 TS18048"]],
    ["typescript", []],
  ])("%s, with its own defaults and project references", async (compiler, expected) => {
    const project = quaysProject({ ...referring, "src/list.ts": reading }, [`${compiler} as typescript`]);
    const { told, unexplained, before } = await proved(project, { id: text, name: text, note: text }, ["id", "name"]);
    expect([told, unexplained, before]).toEqual([expected, [], []]);
    // Files that it caches stay in the copy.
    expect(project.exists("node_modules/.tmp")).toBe(false);
  });

  it("separates errors that existed before from those of the SDK's new types in other files", async () => {
    const broken = "export const wrong: string = 1;\n";
    const files = { ...referring, "src/list.ts": reading, "src/broken.ts": broken };
    const { told, before } = await proved(quaysProject(files, ["typescript-7 as typescript"]), {
      id: text,
      name: text,
    });
    expect(told).toEqual(["answer.field.gone src/list.ts:2 TS2339"]);
    expect(before.map(({ file }) => file)).toEqual(["src/broken.ts"]);
  });

  it.each([
    [
      "vue-tsc",
      "src/Card.vue",
      '<script setup lang="ts">\nimport type { Quay } from "./sdk/quays/index.js";\ndefineProps<{ quay: Quay }>();\n</script>\n<template><p>{{ quay.note.length }}</p></template>\n',
      "TS2339",
    ],
    [
      "svelte-check",
      "src/Card.svelte",
      '<script lang="ts">\nimport type { Quay } from "./sdk/quays/index.js";\nlet { quay }: { quay: Quay } = $props();\n</script>\n<p>{quay.note.length}</p>\n',
      "error",
    ],
  ])("%s, if the app has components", async (checker, path, component, code) => {
    const project = quaysProject({ [path]: component }, ["vue", "svelte", "typescript", checker]);
    const { told, unexplained } = await proved(project, { id: text, name: text });
    expect([told, unexplained]).toEqual([[`answer.field.gone ${path}:5 ${code}`], []]);
  });

  it("is the configured command, in any language", async () => {
    const checker = `import { readFileSync } from "node:fs";
const shapes = readFileSync("src/sdk/quays/shapes.ts", "utf8");
if (shapes.includes("note")) process.exit(0);
console.log("e: file://" + process.cwd() + "/src/list.ts:2:89 Unresolved reference 'note'.");
process.exit(1);
`;
    const project = quaysProject({ "src/list.ts": reading, "check.mjs": checker }, []);
    const configuration = project.read("rhema.yaml").replace("into:", 'proof: { run: "node check.mjs" }, into:');
    project.write("rhema.yaml", configuration);
    const { told, unexplained } = await proved(project, { id: text, name: text });
    expect([told, unexplained]).toEqual([["answer.field.gone src/list.ts:2 error"], []]);
  });
});
