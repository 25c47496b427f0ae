import { describe, expect, it } from "vitest";
import { quaysContract as contract, quaysProject as projectWith, text } from "../support/quaysProject.js";

/** The report about the removal of `note`, and where it is used. */
async function impactOf(files: Record<string, string>, frameworks: readonly string[]) {
  const project = projectWith(files, frameworks);
  expect((await project.run(["generate"])).code).toBe(0);
  project.write("quays.json", contract({ id: text, name: text }));
  const { code, out, err } = await project.run(["impact", "--json"]);
  expect(err).toBe("");
  const { contracts } = JSON.parse(out) as {
    contracts: { changes: { code: string; use: string; hits: { file: string; line: number; column: number }[] }[] }[];
  };
  const change = contracts[0]?.changes.find((each) => each.code === "answer.field.gone");
  return {
    code,
    use: change?.use,
    hits: change?.hits.map(({ file, line, column }) => {
      const text = project.read(file).split("\n")[line - 1] ?? "";
      return `${file}:${String(line)} ${/^[\w$]+/.exec(text.slice(column - 1))?.[0] ?? ""}`;
    }),
  };
}

const setup = (body: string) => `<script setup lang="ts">\n${body}\n</script>\n`;
const quayImport = 'import type { Quay } from "./sdk/quays/index.js";';

describe("Vue templates", () => {
  it.each<[string, string, string]>([
    [
      "of a prop",
      `${setup(`${quayImport}\ndefineProps<{ quay: Quay }>();`)}<template><p>{{ quay.note }}</p></template>`,
      "5",
    ],
    [
      "of props that are held",
      `${setup(`${quayImport}\nconst props = defineProps<{ quay?: Quay }>();`)}<template><p v-if="quay">{{ quay.note }}</p></template>`,
      "5",
    ],
    [
      "in an attribute with entities",
      `${setup(`${quayImport}\ndefineProps<{ quay: Quay }>();`)}<template><p v-if="quay.note === &quot;calm&quot; &amp;&amp; 1 &lt; 2"></p></template>`,
      "5",
    ],
    [
      "of a ref",
      `${setup(`import { ref } from "vue";\n${quayImport}\nconst quay = ref<Quay>();`)}<template>\n<p :title="quay?.note">x</p></template>`,
      "7",
    ],
    [
      "of what is loaded, one by one",
      `${setup('import { load } from "./quays.js";\nconst all = await load();')}<template><li v-for="(each, at) in all" :key="at">{{ each.note.length }}</li></template>`,
      "5",
    ],
    [
      "on an event",
      `${setup(`${quayImport}\nconst { quay } = defineProps<{ quay: Quay }>();\nconst tell = (words: string) => words;`)}<template><button @click="tell(quay.note)" /></template>`,
      "6",
    ],
    [
      "of a component with options",
      `<script lang="ts">\nimport { load } from "./quays.js";\nexport default { data: () => ({ all: [] as Awaited<ReturnType<typeof load>> }) };\n</script>\n<template><p v-for="q of all">{{ q.note }}</p></template>`,
      "5",
    ],
    [
      "through what is computed",
      `${setup(`import { computed } from "vue";\n${quayImport}\nconst props = defineProps<{ quays: Quay[] }>();\nconst first = computed(() => props.quays[0]);`)}<template><p v-text="first?.note" /></template>`,
      "7",
    ],
  ])("a field %s", async (_what, component, line) => {
    const { use, hits, code } = await impactOf({ "src/Card.vue": component }, ["vue"]);
    expect([use, hits, code]).toEqual(["used", [`src/Card.vue:${line} note`], 1]);
  });

  it("a slot has the props that the app's component passes; for other slots Rhema cannot tell", async () => {
    const list = `${setup(`${quayImport}\ndefineProps<{ all: Quay[] }>();`)}<template><div v-for="one in all"><slot name="row" :quay="one" /></div></template>`;
    const page = (tag: string, from: string) =>
      `${setup(`import { load } from "./quays.js";\n${from}\nconst all = await load();`)}<template><${tag} :all="all"><template #row="{ quay }">{{ quay.note }}</template></${tag}></template>`;
    const own = await impactOf(
      { "src/List.vue": list, "src/Page.vue": page("List", 'import List from "./List.vue";') },
      ["vue"],
    );
    expect([own.use, own.hits]).toEqual(["used", ["src/Page.vue:6 note"]]);
    const other = await impactOf({ "src/Page.vue": page("other-list", "") }, ["vue"]);
    expect([other.use, other.code]).toEqual(["cannot tell", 1]);
  });

  it("fields that are not read are not used; without the framework Rhema cannot tell", async () => {
    const component = `${setup(`${quayImport}\ndefineProps<{ quay: Quay }>();`)}<template><p>{{ quay.name }}</p></template>`;
    expect((await impactOf({ "src/Card.vue": component }, ["vue"])).use).toBe("not used");
    expect((await impactOf({ "src/Card.vue": component }, [])).use).toBe("cannot tell");
    const other = component.replace("<template>", '<template lang="pug">');
    expect((await impactOf({ "src/Card.vue": other }, ["vue"])).use).toBe("cannot tell");
  });
});

describe("Svelte templates", () => {
  const script = (body: string) => `<script lang="ts">\n${body}\n</script>\n`;
  it.each<[string, string, string]>([
    ["of a prop", `${script(`${quayImport}\nlet { quay }: { quay: Quay } = $props();`)}<p>{quay.note}</p>`, "5"],
    [
      "of an exported variable",
      `${script(`${quayImport}\nexport let quay: Quay;`)}{#if quay}<p title="a {quay.note}" />{/if}`,
      "5",
    ],
    [
      "of a reactive one",
      `${script(`${quayImport}\nexport let quay: Quay;\n$: shown = quay;`)}<p class:x={shown.note === "x"} />`,
      "6",
    ],
    [
      "of each of a list",
      `${script('import { load } from "./quays.js";')}{#await load() then all}{#each all as { note }, i (i)}{note}{/each}{/await}`,
      "4",
    ],
    [
      "of a store",
      `${script(`import { writable } from "svelte/store";\n${quayImport}\nconst quay = writable<Quay>();`)}<button on:click={() => alert($quay.note)} />`,
      "6",
    ],
  ])("a field %s", async (_what, component, line) => {
    const { use, hits, code } = await impactOf({ "src/Card.svelte": component }, ["svelte"]);
    expect([use, hits, code]).toEqual(["used", [`src/Card.svelte:${line} note`], 1]);
  });

  it("a snippet has the props that the component passes, and fields that are not read are not used", async () => {
    const list = `${script(`import type { Snippet } from "svelte";\n${quayImport}\nlet { all, row }: { all: Quay[]; row: Snippet<[Quay]> } = $props();`)}{#each all as one}{@render row(one)}{/each}`;
    const page = (field: string) =>
      `${script('import { load } from "./quays.js";\nimport List from "./List.svelte";')}{#await load() then all}<List {all}>{#snippet row(quay)}{quay.${field}}{/snippet}</List>{/await}`;
    const used = await impactOf({ "src/List.svelte": list, "src/Page.svelte": page("note") }, ["svelte"]);
    expect([used.use, used.hits]).toEqual(["used", ["src/Page.svelte:5 note"]]);
    expect((await impactOf({ "src/List.svelte": list, "src/Page.svelte": page("name") }, ["svelte"])).use).toBe(
      "not used",
    );
  });
});

describe("markup that Rhema does not read", () => {
  it.each([
    [
      "src/page.astro",
      '---\nimport { load } from "../src/quays.ts";\nconst all = await load();\n---\n<ul>{all.map((each) => <li>{each.name}</li>)}</ul>\n',
    ],
    ["src/page.mdx", 'import { load } from "./quays.ts";\n\n# Quays\n\n<List of={load()} />\n'],
    [
      "src/page.component.ts",
      'import { load } from "./quays.js";\nconst Component = (_: object) => (_1: unknown, _2?: unknown): any => undefined;\n@Component({ templateUrl: "page.html" })\nexport class Page { all = load(); }\n',
    ],
  ])("%s may use everything that it receives", async (path, source) => {
    const { use, code, hits } = await impactOf({ [path]: source }, []);
    expect([use, code, hits]).toEqual(["cannot tell", 1, []]);
  });
});

describe("compile errors in components", () => {
  it.each([
    [
      "src/Card.vue",
      `${setup(`${quayImport}\ndefineProps<{ quay?: Quay }>();`)}<template>\n<p v-if="quay" @click="() => quay.note">{{ quay.note.length }} {{ quay.name }}</p></template>`,
      'import Card from "./Card.vue";\nexport default Card;\n',
    ],
    [
      "src/Card.svelte",
      `<script lang="ts">\n${quayImport}\nlet { quay }: { quay: Quay } = $props();\n</script>\n\n<p onclick={() => quay.note}>{quay.note.length} {quay.name}</p>`,
      'import Card from "./Card.svelte";\nexport const card: unknown = Card;\n',
    ],
  ])("%s: exactly the fields that its template no longer has", async (path, component, main) => {
    const project = projectWith({ [path]: component, "src/main.ts": main }, ["vue", "svelte"]);
    expect((await project.run(["generate"])).code).toBe(0);
    project.write("quays.json", contract({ id: text, name: text }));
    const { out } = await project.run(["impact", "--prove", "--json"]);
    const { contracts, proof } = JSON.parse(out) as {
      contracts: { changes: { code: string; errors: { file: string; line: number; code: string }[] }[] }[];
      proof: { unexplained: unknown[]; before: unknown[] };
    };
    const told = contracts[0]?.changes.flatMap(({ errors }) => errors);
    expect(told?.map(({ file, line, code }) => [file, line, code])).toEqual(
      [6, 6].map((line) => [path, line, "TS2339"]),
    );
    expect([proof.unexplained, proof.before]).toEqual([[], []]);
  });
});
