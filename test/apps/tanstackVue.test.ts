import { expect, it } from "vitest";
import { chromium } from "../support/chromium.js";
import { appProject, openedApp } from "./support/openedApp.js";

/** The code of an app with Vue, as a component without a template, so that only the compiler is needed. */
const app = `import { useInfiniteQuery, useMutation, useQuery, useQueryClient, VueQueryPlugin } from "@tanstack/vue-query";
import { computed, createApp, defineComponent, h, ref } from "vue";
import { berthsKey, cachedBerths } from "./sdk/berths/cached.js";
import { connectBerths, type Berth, type BerthStatus, type Problem } from "./sdk/berths/index.js";

declare const address: string;
const harbour = connectBerths({ baseUrl: address + "/berths", auth: { harbourToken: "made-up" } });
const berths = cachedBerths(harbour);

const Board = defineComponent(() => {
  const client = useQueryClient();
  const status = ref<BerthStatus | undefined>();
  const list = useQuery(computed(() => berths.listBerths(status.value === undefined ? {} : { status: [status.value] })));
  const all = useInfiniteQuery(berths.listBerthsPages({ pageSize: 3 }));
  const one = useQuery({ ...berths.getBerth({ berthId: "nowhere/at all" }), retry: false });
  const lost = computed((): Problem | undefined => (one.error.value?.status === 404 ? one.error.value.body : undefined));
  const add = useMutation({
    ...berths.changeBerth(),
    onSuccess: () => client.invalidateQueries({ queryKey: berthsKey(harbour) }),
  });
  const items = computed((): readonly Berth[] => list.data.value?.items ?? []);
  return () => h("main", [
    h("p", { id: "list" }, list.isPending.value ? "loading" : String(items.value.length) + " " + [...new Set(items.value.map((each) => each.status))].join()),
    h("button", { id: "free", onClick: () => { status.value = "free"; } }, "free"),
    h("p", { id: "all" }, String(all.data.value?.pages.flatMap((page) => page.items).length)),
    h("button", { id: "more", onClick: () => all.fetchNextPage() }, "more"),
    h("p", { id: "lost" }, lost.value === undefined ? String(one.status.value) : "404"),
    h("button", { id: "note", onClick: () => { add.mutate({ berthId: items.value[0]?.id ?? "", body: { note: "swept" } }); } }, "note"),
    h("p", { id: "notes" }, items.value.map((each) => each.note ?? "").join()),
  ]);
});

createApp(Board).use(VueQueryPlugin).mount("#app");
`;

it.skipIf(chromium === undefined)("described calls work with TanStack Query in Vue, also in refs", async () => {
  const project = await appProject({ "src/main.ts": app }, "{ cached: true }");
  expect(project.compile({ moduleResolution: "bundler", module: "esnext" })).toBe("");
  const { says, click } = await openedApp(project, "src/main.ts");
  await says("list", /^\d+ .*,/);
  await click("free");
  await says("list", /^\d+ free$/);
  await says("all", "3");
  await click("more");
  await says("all", "6");
  await click("note");
  await says("notes", "swept");
  await says("lost", /404|success/);
});
