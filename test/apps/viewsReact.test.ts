import { expect, it } from "vitest";
import { chromium } from "../support/chromium.js";
import { boardModule, walkThroughBoard } from "./support/boardScreen.js";
import { appProject, openedApp } from "./support/openedApp.js";

const app = `import { StrictMode, useState } from "react";
import { createRoot } from "react-dom/client";
import { arrivalsText, berths, counted, listText, noted, oneText, pagesText, passages, overrideWith } from "./board.js";
import type { BerthStatus } from "./sdk/berths/index.js";
import { useAnswer, useChange, usePages, useStream } from "./sdk/views/react.js";

function Board() {
  const [status, setStatus] = useState<BerthStatus>();
  const [chosen, choose] = useState<string>();
  const list = useAnswer(berths.listBerths(status === undefined ? {} : { status: [status] }));
  const pages = usePages(berths.listBerthsPages({ pageSize: 2 }));
  const one = useAnswer(chosen === undefined ? undefined : berths.getBerth({ berthId: chosen }));
  const arrivals = useStream(passages.liveArrivals(), { gather: counted });
  const change = useChange(berths.changeBerth(), { predict: (args) => list.predict((page) => noted(page, args)) });
  const paint = async () => {
    const sent = await change.send({ berthId: list.answer?.items[0]?.id ?? "", body: { note: "freshly painted" } });
    if (sent.state === "done") list.again();
  };
  return (
    <main>
      <p id="list">{listText(list)}</p>
      <p id="pages">{pagesText(pages)}</p>
      <p id="one">{oneText(one)}</p>
      <p id="arrivals">{arrivalsText(arrivals)}</p>
      <p id="change">{change.state + (change.failure ? " " + String(change.failure.status) : "")}</p>
      <button id="free" onClick={() => { setStatus("free"); }}>free</button>
      <button id="again" onClick={list.again}>again</button>
      <button id="more" onClick={pages.more}>more</button>
      <button id="missing" onClick={() => { overrideWith("status=404"); choose("nowhere"); }}>missing</button>
      <button id="change-it" onClick={() => { void paint(); }}>change</button>
    </main>
  );
}

function App() {
  const [isThere, setThere] = useState(true);
  return isThere ? <><Board /><button id="leave" onClick={() => { setThere(false); }}>leave</button></> : <p id="gone">gone</p>;
}

Object.assign(window, { overrideWith });
createRoot(document.getElementById("app")!).render(<StrictMode><App /></StrictMode>);
`;

/** Code that must not compile: each line is an error, or the compiler reports its comment. */
const wrong = `import { berths } from "./board.js";
import { useAnswer, useChange, usePages, useStream } from "./sdk/views/react.js";
export function Wrong() {
  const list = useAnswer(berths.listBerths());
  // @ts-expect-error -- an answer may not be there yet
  list.answer.items;
  // @ts-expect-error -- a status that the call does not declare
  if (list.failure?.status === 409) return null;
  if (list.state === "ready") {
    list.answer.items[0]?.id.length;
    // @ts-expect-error -- a prediction is an answer
    list.predict((page) => ({ ...page, items: [1] }));
  }
  // @ts-expect-error -- a call that changes something is not shown
  useAnswer(berths.changeBerth());
  // @ts-expect-error -- pages are
  usePages(berths.listBerths());
  // @ts-expect-error -- a call that answers once is no stream
  useStream(berths.listBerths());
  const change = useChange(berths.changeBerth());
  // @ts-expect-error -- what the call is given
  void change.send({ berthId: 7 });
  return null;
}
`;

it.skipIf(chromium === undefined)("a screen with React shows every state, and sends once in strict mode", async () => {
  const project = await appProject(
    { "src/board.ts": boardModule, "src/main.tsx": app, "src/wrong.tsx": wrong },
    "{ views: react }",
  );
  expect(project.compile({ jsx: "react-jsx", moduleResolution: "bundler", module: "esnext" })).toBe("");
  expect(Object.keys(project.tree("src/sdk/views"))).toEqual(["live.ts", "react.ts"]);
  await walkThroughBoard(await openedApp(project, "src/main.tsx"));
});
