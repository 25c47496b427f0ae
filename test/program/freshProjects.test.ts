import { mkdirSync, symlinkSync } from "node:fs";
import { dirname, resolve } from "node:path";
import { describe, expect, it } from "vitest";
import { quaysContract, text } from "../support/quaysProject.js";
import { TemporaryProject } from "../support/temporaryProject.js";

/** A project like those of current starters, with packages that are installed here: "typescript-7 as typescript". */
function fresh(files: Record<string, string>, packages: readonly string[]): TemporaryProject {
  const project = new TemporaryProject({ "quays.json": quaysContract({ id: text, name: text, note: text }), ...files });
  for (const name of packages) {
    const [installed = "", as = installed] = name.split(" as ");
    const path = project.path(`node_modules/${as}`);
    mkdirSync(dirname(path), { recursive: true });
    symlinkSync(resolve("node_modules", installed), path);
  }
  return project;
}

const react = {
  "package.json": JSON.stringify({
    name: "quay-board",
    private: true,
    type: "module",
    scripts: { dev: "vite", build: "tsc -b && vite build" },
    dependencies: { react: "^19.0.0" },
    devDependencies: { "@types/react": "^19.0.0", typescript: "~7.0.0", vite: "^8.0.0" },
  }),
  "tsconfig.json":
    '{ "files": [], "references": [{ "path": "./tsconfig.app.json" }, { "path": "./tsconfig.node.json" }] }',
  "tsconfig.app.json": `{
  "compilerOptions": {
    "tsBuildInfoFile": "./node_modules/.tmp/tsconfig.app.tsbuildinfo",
    "target": "es2023", "lib": ["ES2023", "DOM"], "module": "esnext", "types": ["vite/client"],
    "allowArbitraryExtensions": true, "skipLibCheck": true,

    /* Bundler mode */
    "moduleResolution": "bundler", "allowImportingTsExtensions": true, "verbatimModuleSyntax": true,
    "moduleDetection": "force", "noEmit": true, "jsx": "react-jsx",

    /* Linting */
    "noUnusedLocals": true, "noUnusedParameters": true, "erasableSyntaxOnly": true, "noFallthroughCasesInSwitch": true
  },
  "include": ["src"]
}
`,
  "tsconfig.node.json": `{
  "compilerOptions": {
    "tsBuildInfoFile": "./node_modules/.tmp/tsconfig.node.tsbuildinfo",
    "target": "es2023", "lib": ["ES2023"], "types": ["node"], "skipLibCheck": true, "module": "nodenext", "noEmit": true
  },
  "include": ["vite.config.ts"]
}
`,
  "vite.config.ts": 'import { defineConfig } from "vite";\n\nexport default defineConfig({});\n',
  "src/App.tsx": `import { useEffect, useState } from "react";
import { connectQuays, listQuays, type Quay } from "./sdk/quays/index.js";

const harbour = connectQuays({ baseUrl: "/api" });

export function App() {
  const [quays, setQuays] = useState<Quay[]>([]);
  useEffect(() => {
    void listQuays(harbour).then(setQuays);
  }, []);
  return (
    <ul>
      {quays.map((quay) => (
        <li key={quay.id} title={quay.note.toUpperCase()}>
          {quay.name}
        </li>
      ))}
    </ul>
  );
}
`,
};

const vue = {
  "package.json": JSON.stringify({
    name: "quay-board",
    private: true,
    type: "module",
    scripts: { dev: "vite", "type-check": "vue-tsc --build" },
    dependencies: { vue: "^3.5.0" },
    devDependencies: { "@vue/tsconfig": "^0.9.0", typescript: "~6.0.0", vite: "^8.0.0", "vue-tsc": "^3.3.0" },
  }),
  "env.d.ts": '/// <reference types="vite/client" />\n',
  "tsconfig.json":
    '{ "files": [], "references": [{ "path": "./tsconfig.node.json" }, { "path": "./tsconfig.app.json" }] }',
  "tsconfig.app.json": `{
  "extends": "@vue/tsconfig/tsconfig.dom.json",
  "include": ["env.d.ts", "src/**/*", "src/**/*.vue"],
  "exclude": ["src/**/__tests__/*"],
  "compilerOptions": {
    // Extra safety for array and object lookups, but may have false positives.
    "noUncheckedIndexedAccess": true,
    "paths": { "@/*": ["./src/*"] },
    "tsBuildInfoFile": "./node_modules/.tmp/tsconfig.app.tsbuildinfo"
  }
}
`,
  "tsconfig.node.json": `{
  "include": ["vite.config.*"],
  "compilerOptions": {
    "module": "preserve", "moduleResolution": "bundler", "types": ["node"], "noEmit": true, "skipLibCheck": true,
    "tsBuildInfoFile": "./node_modules/.tmp/tsconfig.node.tsbuildinfo"
  }
}
`,
  "vite.config.ts": 'import { defineConfig } from "vite";\n\nexport default defineConfig({});\n',
  "src/App.vue": `<script setup lang="ts">
import QuayList from "./components/QuayList.vue";
import { connectQuays, listQuays } from "@/sdk/quays";

const quays = await listQuays(connectQuays({ baseUrl: "/api" }));
</script>

<template>
  <QuayList :quays="quays" />
</template>
`,
  "src/components/QuayList.vue": `<script setup lang="ts">
import type { Quay } from "@/sdk/quays";

defineProps<{ quays: Quay[] }>();
</script>

<template>
  <li v-for="quay in quays" :key="quay.id" :title="quay.note.toUpperCase()">{{ quay.name }}</li>
</template>
`,
};

interface Told {
  readonly contracts: {
    readonly changes: {
      readonly code: string;
      readonly use: string;
      readonly hits: Place[];
      readonly errors?: Place[];
    }[];
  }[];
  readonly proof?: { readonly unexplained: object[]; readonly before: object[] };
}

interface Place {
  readonly file: string;
  readonly line: number;
}

describe("a fresh project", () => {
  it.each([
    [
      "React",
      react,
      ["typescript-7 as typescript", "@types/react", "csstype", "@types/node", "vite"],
      "src/App.tsx:14",
    ],
    [
      "Vue",
      vue,
      ["typescript-6 as typescript", "vue", "vue-tsc", "@vue/tsconfig", "@types/node", "vite"],
      "src/components/QuayList.vue:8",
    ],
  ])("with %s: from init to a proof", async (_framework, files, packages, line) => {
    const project = fresh(files, packages);
    const made = await project.run(["init", "--yes"]);
    expect(made).toMatchObject({ code: 0 });
    expect((await project.run(["generate"])).code).toBe(0);
    expect((await project.run(["impact", "--prove"])).out).toContain("nothing changed");
    project.write("quays.json", quaysContract({ id: text, name: text, note: text }, ["id", "name"]));
    const scanned = await project.run(["impact", "--json"]);
    const proved = await project.run(["impact", "--prove", "--json"]);
    expect([scanned.code, proved.code, proved.err]).toEqual([1, 1, ""]);
    const at = (places: readonly Place[] = []) => places.map(({ file, line: number }) => `${file}:${String(number)}`);
    const changes = (out: string) => (JSON.parse(out) as Told).contracts.flatMap((contract) => contract.changes);
    expect(changes(scanned.out).map(({ code, use, hits }) => [code, use, at(hits)])).toEqual([
      ["answer.field.now-optional", "used", [line]],
    ]);
    expect(changes(proved.out).map(({ errors }) => at(errors))).toEqual([[line]]);
    expect((JSON.parse(proved.out) as Told).proof).toMatchObject({ unexplained: [], before: [] });
  });
});
