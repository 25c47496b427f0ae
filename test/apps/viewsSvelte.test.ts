import { readFileSync } from "node:fs";
import { join } from "node:path";
import type { Plugin } from "esbuild";
import { compile } from "svelte/compiler";
import { expect, it } from "vitest";
import { chromium } from "../support/chromium.js";
import { packageRoot } from "../support/packageRoot.js";
import { runNode } from "../support/runNode.js";
import { boardModule, walkThroughBoard } from "./support/boardScreen.js";
import { appProject, openedApp } from "./support/openedApp.js";

const board = `<script lang="ts">
  import { arrivalsText, berths, counted, listText, noted, oneText, pagesText, passages, overrideWith } from "./board.js";
  import type { BerthStatus } from "./sdk/berths/index.js";
  import { liveAnswer, liveChange, livePages, liveStream } from "./sdk/views/svelte.js";

  let status = $state<BerthStatus>();
  let chosen = $state<string>();
  const list = liveAnswer(() => berths.listBerths(status === undefined ? {} : { status: [status] }));
  const pages = livePages(() => berths.listBerthsPages({ pageSize: 2 }));
  const one = liveAnswer(() => (chosen === undefined ? undefined : berths.getBerth({ berthId: chosen })));
  const arrivals = liveStream(() => passages.liveArrivals(), { gather: counted });
  const change = liveChange(() => berths.changeBerth(), { predict: (args) => list.current.predict((page) => noted(page, args)) });

  async function paint() {
    const berthId = list.current.answer?.items[0]?.id ?? "";
    const sent = await change.current.send({ berthId, body: { note: "freshly painted" } });
    if (sent.state === "done") list.current.again();
  }
  function missing() {
    overrideWith("status=404");
    chosen = "nowhere";
  }
</script>

<main>
  <p id="list">{listText(list.current)}</p>
  <p id="pages">{pagesText(pages.current)}</p>
  <p id="one">{oneText(one.current)}</p>
  <p id="arrivals">{arrivalsText(arrivals.current)}</p>
  <p id="change">{change.current.state} {change.current.failure?.status ?? ""}</p>
  <button id="free" onclick={() => (status = "free")}>free</button>
  <button id="again" onclick={() => list.current.again()}>again</button>
  <button id="more" onclick={() => pages.current.more()}>more</button>
  <button id="missing" onclick={missing}>missing</button>
  <button id="change-it" onclick={paint}>change</button>
</main>
`;
const app = `<script lang="ts">
  import Board from "./Board.svelte";

  let isThere = $state(true);
</script>

{#if isThere}
  <Board />
  <button id="leave" onclick={() => (isThere = false)}>leave</button>
{:else}
  <p id="gone">gone</p>
{/if}
`;
const main = `import { mount } from "svelte";
import App from "./App.svelte";
import { overrideWith } from "./board.js";

Object.assign(window, { overrideWith });
mount(App, { target: document.getElementById("app")! });
`;

const components: Plugin = {
  name: "components",
  setup: (build) => {
    build.onLoad({ filter: /\.svelte$/ }, ({ path }) => ({
      contents: compile(readFileSync(path, "utf8"), { filename: path, generate: "client", dev: true }).js.code,
    }));
  },
};

it.skipIf(chromium === undefined)("a screen with Svelte shows every state", async () => {
  const project = await appProject(
    { "src/board.ts": boardModule, "src/Board.svelte": board, "src/App.svelte": app, "src/main.ts": main },
    "{ views: svelte }",
  );
  const compilerOptions = {
    ...{ strict: true, noUncheckedIndexedAccess: true, exactOptionalPropertyTypes: true, verbatimModuleSyntax: true },
    ...{ module: "esnext", moduleResolution: "bundler", target: "es2022", lib: ["es2023", "dom"], noEmit: true },
  };
  project.write("tsconfig.json", JSON.stringify({ compilerOptions, include: ["src"] }));
  const checker = join(packageRoot, "node_modules/svelte-check/bin/svelte-check");
  const said = await runNode(project.folder, [checker, "--output", "human"]);
  expect(said).toContain("found 0 errors and 0 warnings");
  await walkThroughBoard(
    await openedApp(project, "src/main.ts", { how: { plugins: [components], conditions: ["browser"] } }),
  );
});
