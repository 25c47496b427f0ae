import { expect, it } from "vitest";
import { chromium } from "../support/chromium.js";
import { appProject, openedApp, serverModule, type Render } from "./support/openedApp.js";

/** An app's server for every request: a connection, its calls, and the headers that it passes on. */
const server = `import { cachedBerths } from "./sdk/berths/cached.js";
import { connectBerths } from "./sdk/berths/index.js";
import type { Layer } from "./sdk/wire/index.js";

export const sent: string[] = [];
const noting: Layer = (request, next) => {
  sent.push(request.headers.get("cookie") ?? "none");
  return next(request);
};

/** One connection for each request, so that nothing of one visitor is left for the next. */
export function berthsFor(address: string, cookie: string) {
  const headers = { cookie };
  return cachedBerths(connectBerths({ baseUrl: address + "/berths", auth: { harbourToken: "made-up" }, headers, around: [noting] }));
}

/** Text inside a script, which it cannot end. */
export function inScript(data: unknown): string {
  return JSON.stringify(data).replace(/</g, "\\\\u003c");
}
`;

/** The cache for an app's responses, which it sends to the browser. */
const newClient = `export function newClient(): QueryClient {
  return new QueryClient({
    defaultOptions: {
      queries: { staleTime: 60_000 },
      dehydrate: { serializeData: packed },
      hydrate: { deserializeData: unpacked },
    },
  });
}
`;

/** The day's tides. Their times are dates in the app. */
const reactApp = `import { QueryClient, QueryClientProvider, useQuery } from "@tanstack/react-query";
import type { cachedBerths } from "./sdk/berths/cached.js";
import { packed, unpacked } from "./sdk/wire/index.js";

export const args = { day: "2026-05-01", unit: "metre" } as const;

${newClient}
function Tides({ berths }: { berths: ReturnType<typeof cachedBerths> }) {
  const { data } = useQuery(berths.tideTable(args));
  return <p id="tides">{data === undefined ? "loading" : data.tides.map((tide) => tide.kind + " " + tide.at.toISOString()).join(", ")}</p>;
}

export function App({ client, berths }: { client: QueryClient; berths: ReturnType<typeof cachedBerths> }) {
  return <QueryClientProvider client={client}><Tides berths={berths} /></QueryClientProvider>;
}
`;
const reactServer = `import { dehydrate } from "@tanstack/react-query";
import { renderToString } from "react-dom/server";
import { App, args, newClient } from "./app.js";
import { berthsFor, inScript } from "./server.js";
export { sent } from "./server.js";

export async function render(address: string, cookie: string): Promise<string> {
  const client = newClient();
  const berths = berthsFor(address, cookie);
  await client.prefetchQuery(berths.tideTable(args));
  const html = renderToString(<App client={client} berths={berths} />);
  return '<div id="app">' + html + "</div><script>window.kept = " + inScript(dehydrate(client)) + "</script>";
}
`;
const reactBrowser = `import { hydrate, type DehydratedState } from "@tanstack/react-query";
import { hydrateRoot } from "react-dom/client";
import { App, newClient } from "./app.js";
import { cachedBerths } from "./sdk/berths/cached.js";
import { connectBerths } from "./sdk/berths/index.js";

declare const address: string;
declare const kept: DehydratedState;
const client = newClient();
hydrate(client, kept);
const berths = cachedBerths(connectBerths({ baseUrl: address + "/berths", auth: { harbourToken: "made-up" } }));
hydrateRoot(document.getElementById("app")!, <App client={client} berths={berths} />, {
  onRecoverableError: (error) => { document.title = String(error); },
});
document.title = document.title === "" ? "hydrated" : document.title;
`;

const vueApp = `import { QueryClient, useQuery, VueQueryPlugin } from "@tanstack/vue-query";
import { createSSRApp, defineComponent, h, onServerPrefetch } from "vue";
import type { cachedBerths } from "./sdk/berths/cached.js";
import { packed, unpacked } from "./sdk/wire/index.js";

${newClient}
export function newApp(queryClient: QueryClient, berths: ReturnType<typeof cachedBerths>) {
  const Tides = defineComponent(() => {
    const { data, suspense } = useQuery(berths.tideTable({ day: "2026-05-01", unit: "metre" }));
    onServerPrefetch(async () => { await suspense(); });
    return () => h("p", { id: "tides" }, data.value === undefined ? "loading" : data.value.tides.map((tide) => tide.kind + " " + tide.at.toISOString()).join(", "));
  });
  return createSSRApp(Tides).use(VueQueryPlugin, { queryClient });
}
`;
const vueServer = `import { dehydrate } from "@tanstack/vue-query";
import { renderToString } from "vue/server-renderer";
import { newApp, newClient } from "./app.js";
import { berthsFor, inScript } from "./server.js";
export { sent } from "./server.js";

export async function render(address: string, cookie: string): Promise<string> {
  const client = newClient();
  const html = await renderToString(newApp(client, berthsFor(address, cookie)));
  return '<div id="app">' + html + "</div><script>window.kept = " + inScript(dehydrate(client)) + "</script>";
}
`;
const vueBrowser = `import { hydrate, type DehydratedState } from "@tanstack/vue-query";
import { newApp, newClient } from "./app.js";
import { cachedBerths } from "./sdk/berths/cached.js";
import { connectBerths } from "./sdk/berths/index.js";

declare const address: string;
declare const kept: DehydratedState;
const client = newClient();
hydrate(client, kept);
newApp(client, cachedBerths(connectBerths({ baseUrl: address + "/berths", auth: { harbourToken: "made-up" } }))).mount("#app");
document.title = "hydrated";
`;

/**
 * The same with the SDK's own bindings: the app sends the request before it renders, and passes the response to the
 * component.
 */
const firstAsked = `export async function render(address: string, cookie: string): Promise<string> {
  const berths = berthsFor(address, cookie);
  const first = (await berths.tideTable(args).queryFn({})) ?? undefined;
  const html = await markup(berths, first);
  return '<div id="app">' + html + "</div><script>window.kept = " + inScript(packed(first)) + "</script>";
}
`;
const firstKept = `declare const address: string;
declare const kept: unknown;
const first = unpacked(kept) as TidePage;
const berths = cachedBerths(connectBerths({ baseUrl: address + "/berths", auth: { harbourToken: "made-up" } }));
`;
const shownTides = `export const args = { day: "2026-05-01", unit: "metre" } as const;
export type TidePage = Awaited<ReturnType<typeof tideTable>>;
export type Berths = ReturnType<typeof cachedBerths>;
export const told = (page: TidePage | undefined): string => page?.tides.map((tide) => tide.kind + " " + tide.at.toISOString()).join(", ") ?? "loading";
`;
const importsOfApp = `import type { cachedBerths } from "./sdk/berths/cached.js";
import type { tideTable } from "./sdk/berths/index.js";
`;
const importsOfBrowser = `import { cachedBerths } from "./sdk/berths/cached.js";
import { connectBerths } from "./sdk/berths/index.js";
import { unpacked } from "./sdk/wire/index.js";
`;

const reactViews = {
  "src/app.tsx": `${importsOfApp}import { useAnswer } from "./sdk/views/react.js";

${shownTides}
export function App({ berths, first }: { berths: Berths; first: TidePage | undefined }) {
  const { answer } = useAnswer(berths.tideTable(args), first === undefined ? {} : { first });
  const other = useAnswer(berths.tideTable({ ...args, unit: "foot" }));
  return <><p id="tides">{told(answer)}</p><p id="other">{other.state}</p></>;
}
`,
  "src/render.tsx": `import { renderToString } from "react-dom/server";
import { App, args, type Berths, type TidePage } from "./app.js";
import { packed } from "./sdk/wire/index.js";
import { berthsFor, inScript } from "./server.js";
export { sent } from "./server.js";

const markup = (berths: Berths, first: TidePage | undefined) => renderToString(<App berths={berths} first={first} />);
${firstAsked}`,
  "src/main.tsx": `import { hydrateRoot } from "react-dom/client";
import { App, type TidePage } from "./app.js";
${importsOfBrowser}
${firstKept}hydrateRoot(document.getElementById("app")!, <App berths={berths} first={first} />, {
  onRecoverableError: (error) => { document.title = String(error); },
});
document.title = document.title === "" ? "hydrated" : document.title;
`,
};

const vueViews = {
  "src/app.ts": `import { createSSRApp, defineComponent, h } from "vue";
${importsOfApp}import { useAnswer } from "./sdk/views/vue.js";

${shownTides}
export function newApp(berths: Berths, first: TidePage | undefined) {
  return createSSRApp(defineComponent(() => {
    const list = useAnswer(() => berths.tideTable(args), first === undefined ? {} : { first });
    const other = useAnswer(() => berths.tideTable({ ...args, unit: "foot" }));
    return () => [h("p", { id: "tides" }, told(list.value.answer)), h("p", { id: "other" }, other.value.state)];
  }));
}
`,
  "src/render.ts": `import { renderToString } from "vue/server-renderer";
import { args, newApp, type Berths, type TidePage } from "./app.js";
import { packed } from "./sdk/wire/index.js";
import { berthsFor, inScript } from "./server.js";
export { sent } from "./server.js";

const markup = (berths: Berths, first: TidePage | undefined) => renderToString(newApp(berths, first));
${firstAsked}`,
  "src/main.ts": `import { newApp, type TidePage } from "./app.js";
${importsOfBrowser}
${firstKept}newApp(berths, first).mount("#app");
document.title = "hydrated";
`,
};

it.skipIf(chromium === undefined).each([
  ["React", { "src/app.tsx": reactApp, "src/render.tsx": reactServer, "src/main.tsx": reactBrowser }, "tsx"],
  ["Vue", { "src/app.ts": vueApp, "src/render.ts": vueServer, "src/main.ts": vueBrowser }, "ts"],
] as const)(
  "the browser reuses what a server has rendered with %s, dates included, and does not request it again",
  async (_, files, ending) => {
    const project = await appProject(
      { ...files, "src/server.ts": server },
      "{ cached: true, dates: decoded, int64: bigint }",
    );
    expect(project.compile({ jsx: "react-jsx", moduleResolution: "bundler", module: "esnext", types: ["node"] })).toBe(
      "",
    );
    const { render, sent } = await serverModule<{ render: Render; sent: string[] }>(project, `src/render.${ending}`);
    let html = "";
    const { page, says, textOf, requests } = await openedApp(project, `src/main.${ending}`, {
      render: async (address, cookie) => (html = await render(address, cookie)),
    });
    expect(sent).toEqual(["visitor=skipper"]);
    const shown = /<p id="tides">(\w+ \d{4}-\d\d-\d\dT[^<]*)<\/p>/.exec(html)?.[1] ?? html;
    await says("tides", shown);
    expect([await textOf("tides"), await page.evaluate("document.title"), await requests()]).toEqual([
      shown,
      "hydrated",
      [],
    ]);
  },
);

it.skipIf(chromium === undefined).each([
  ["react", reactViews, "tsx"],
  ["vue", vueViews, "ts"],
] as const)(
  "a component with the bindings for %s is rendered with its first response, and sends nothing on the server",
  async (views, files, ending) => {
    const project = await appProject(
      { ...files, "src/server.ts": server },
      `{ views: ${views}, dates: decoded, int64: bigint }`,
    );
    expect(project.compile({ jsx: "react-jsx", moduleResolution: "bundler", module: "esnext", types: ["node"] })).toBe(
      "",
    );
    const { render, sent } = await serverModule<{ render: Render; sent: string[] }>(project, `src/render.${ending}`);
    let html = "";
    const { page, says, textOf, requests } = await openedApp(project, `src/main.${ending}`, {
      render: async (address, cookie) => (html = await render(address, cookie)),
    });
    expect(sent).toEqual(["visitor=skipper"]);
    const shown = /<p id="tides">(\w+ \d{4}-\d\d-\d\dT[^<]*)<\/p>/.exec(html)?.[1] ?? html;
    expect(html).toContain('<p id="other">loading</p>');
    await says("other", "ready");
    // Only calls without a first response are requested in the browser.
    expect([await textOf("tides"), await page.evaluate("document.title"), await requests()]).toEqual([
      shown,
      "hydrated",
      [expect.stringContaining("unit=foot")],
    ]);
  },
);
