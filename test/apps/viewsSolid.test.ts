import { expect, it } from "vitest";
import { chromium } from "../support/chromium.js";
import { boardModule, walkThroughBoard } from "./support/boardScreen.js";
import { appProject, openedApp } from "./support/openedApp.js";

/** Elements are made by functions, so that only the compiler is needed. */
const app = `import { createSignal, Show } from "solid-js";
import h from "solid-js/h";
import { render } from "solid-js/web";
import { arrivalsText, berths, counted, listText, noted, oneText, pagesText, passages, overrideWith } from "./board.js";
import type { BerthStatus } from "./sdk/berths/index.js";
import { createAnswer, createChange, createPages, createStream } from "./sdk/views/solid.js";

function Board() {
  const [status, setStatus] = createSignal<BerthStatus>();
  const [chosen, choose] = createSignal<string>();
  const list = createAnswer(() => {
    const only = status();
    return berths.listBerths(only === undefined ? {} : { status: [only] });
  });
  const pages = createPages(() => berths.listBerthsPages({ pageSize: 2 }));
  const one = createAnswer(() => {
    const berthId = chosen();
    return berthId === undefined ? undefined : berths.getBerth({ berthId });
  });
  const arrivals = createStream(() => passages.liveArrivals(), { gather: counted });
  const change = createChange(() => berths.changeBerth(), { predict: (args) => list().predict((page) => noted(page, args)) });
  const paint = async () => {
    const sent = await change().send({ berthId: list().answer?.items[0]?.id ?? "", body: { note: "freshly painted" } });
    if (sent.state === "done") list().again();
  };
  return h("main", [
    h("p", { id: "list" }, () => listText(list())),
    h("p", { id: "pages" }, () => pagesText(pages())),
    h("p", { id: "one" }, () => oneText(one())),
    h("p", { id: "arrivals" }, () => arrivalsText(arrivals())),
    h("p", { id: "change" }, () => change().state + (change().failure ? " " + String(change().failure?.status) : "")),
    h("button", { id: "free", onClick: () => setStatus("free") }, "free"),
    h("button", { id: "again", onClick: () => { list().again(); } }, "again"),
    h("button", { id: "more", onClick: () => { pages().more(); } }, "more"),
    h("button", { id: "missing", onClick: () => { overrideWith("status=404"); choose("nowhere"); } }, "missing"),
    h("button", { id: "change-it", onClick: () => { void paint(); } }, "change"),
  ]);
}

const [isThere, setThere] = createSignal(true);
const App = () =>
  h(Show, {
    when: isThere,
    fallback: () => h("p", { id: "gone" }, "gone"),
  }, () => h("div", [h(Board), h("button", { id: "leave", onClick: () => setThere(false) }, "leave")]));

Object.assign(window, { overrideWith });
render(App as never, document.getElementById("app")!);
`;

it.skipIf(chromium === undefined)("a screen with Solid shows every state", async () => {
  const project = await appProject({ "src/board.ts": boardModule, "src/main.ts": app }, "{ views: [solid] }");
  expect(project.compile({ moduleResolution: "bundler", module: "esnext" })).toBe("");
  await walkThroughBoard(await openedApp(project, "src/main.ts"));
});
