import { expect, it } from "vitest";
import { chromium } from "../support/chromium.js";
import { boardModule, walkThroughBoard } from "./support/boardScreen.js";
import { appProject, openedApp } from "./support/openedApp.js";

/** A component without a template, so that only the compiler is needed. */
const app = `import { createApp, defineComponent, h, ref } from "vue";
import { arrivalsText, berths, counted, listText, noted, oneText, pagesText, passages, overrideWith } from "./board.js";
import type { BerthStatus } from "./sdk/berths/index.js";
import { useAnswer, useChange, usePages, useStream } from "./sdk/views/vue.js";

const Board = defineComponent(() => {
  const status = ref<BerthStatus>();
  const chosen = ref<string>();
  const list = useAnswer(() => berths.listBerths(status.value === undefined ? {} : { status: [status.value] }));
  const pages = usePages(berths.listBerthsPages({ pageSize: 2 }));
  const one = useAnswer(() => (chosen.value === undefined ? undefined : berths.getBerth({ berthId: chosen.value })));
  const arrivals = useStream(passages.liveArrivals(), { gather: counted });
  const change = useChange(berths.changeBerth(), { predict: (args) => list.value.predict((page) => noted(page, args)) });
  const paint = async () => {
    const sent = await change.value.send({ berthId: list.value.answer?.items[0]?.id ?? "", body: { note: "freshly painted" } });
    if (sent.state === "done") list.value.again();
  };
  return () => h("main", [
    h("p", { id: "list" }, listText(list.value)),
    h("p", { id: "pages" }, pagesText(pages.value)),
    h("p", { id: "one" }, oneText(one.value)),
    h("p", { id: "arrivals" }, arrivalsText(arrivals.value)),
    h("p", { id: "change" }, change.value.state + (change.value.failure ? " " + String(change.value.failure.status) : "")),
    h("button", { id: "free", onClick: () => { status.value = "free"; } }, "free"),
    h("button", { id: "again", onClick: list.value.again }, "again"),
    h("button", { id: "more", onClick: pages.value.more }, "more"),
    h("button", { id: "missing", onClick: () => { overrideWith("status=404"); chosen.value = "nowhere"; } }, "missing"),
    h("button", { id: "change-it", onClick: () => { void paint(); } }, "change"),
  ]);
});

const isThere = ref(true);
const App = defineComponent(() => () =>
  isThere.value
    ? h("div", [h(Board), h("button", { id: "leave", onClick: () => { isThere.value = false; } }, "leave")])
    : h("p", { id: "gone" }, "gone"),
);

Object.assign(window, { overrideWith });
createApp(App).mount("#app");
`;

it.skipIf(chromium === undefined)("a screen with Vue shows every state", async () => {
  const project = await appProject({ "src/board.ts": boardModule, "src/main.ts": app }, "{ views: [vue] }");
  expect(project.compile({ moduleResolution: "bundler", module: "esnext" })).toBe("");
  await walkThroughBoard(await openedApp(project, "src/main.ts"));
});
