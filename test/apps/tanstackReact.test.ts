import { expect, it } from "vitest";
import { chromium } from "../support/chromium.js";
import { appProject, openedApp } from "./support/openedApp.js";

/** The code of an app with React, with its types. */
const app = `import { QueryClient, QueryClientProvider, useInfiniteQuery, useMutation, useQuery } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { berthsKey, cachedBerths } from "./sdk/berths/cached.js";
import { connectBerths, type Berth, type Problem } from "./sdk/berths/index.js";
import { cachedPassages } from "./sdk/passages/cached.js";
import { connectPassages } from "./sdk/passages/index.js";

declare const address: string;
const override: { now?: string } = {};
const headers = (): Record<string, string> => (override.now === undefined ? {} : { "rhema-play": override.now });
const harbour = connectBerths({ baseUrl: address + "/berths", auth: { harbourToken: "made-up" }, headers });
const berths = cachedBerths(harbour);
const passages = cachedPassages(connectPassages({ baseUrl: address + "/passages" }));
const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });

function Board() {
  const list = useQuery(berths.listBerths({ pageSize: 2 }));
  const items: readonly Berth[] | undefined = list.data?.items;
  const all = useInfiniteQuery(berths.listBerthsPages({ pageSize: 2 }));
  const ids: string[] = all.data?.pages.flatMap((page) => page.items.map(({ id }) => id)) ?? [];
  const one = useQuery({ ...berths.getBerth({ berthId: "nowhere" }), enabled: override.now !== undefined });
  const lost: Problem | undefined = one.error?.status === 404 ? one.error.body : undefined;
  const change = useMutation({
    ...berths.changeBerth(),
    onSuccess: (berth: Berth) => client.invalidateQueries({ queryKey: berthsKey(harbour, "listBerths") }).then(() => berth),
  });
  const notices = useQuery(berths.currentNotices());
  const day = useQuery(passages.arrivalsToday({ day: "2026-05-01" }));
  const remove = useMutation(berths.removeBerth());
  const gone: null | undefined = remove.data;
  const first = items?.[0]?.id ?? "";
  return (
    <main>
      <p id="list">{list.isPending ? "loading" : items?.map(({ id, note }) => id + " " + (note ?? "-")).join(", ")}</p>
      <p id="all">{String(ids.length) + " " + String(new Set(ids).size) + (all.hasNextPage ? " and more" : " in all")}</p>
      <button id="more" onClick={() => void all.fetchNextPage()}>more</button>
      <button id="change" onClick={() => { change.mutate({ berthId: first, body: { note: "freshly painted" } }); }}>change</button>
      <button id="lose" onClick={() => { override.now = "status=404"; void one.refetch(); }}>lose</button>
      <p id="lost">{lost === undefined ? "none" : "404 " + typeof lost.title + " " + String(one.error?.call)}</p>
      <p id="notices">{typeof notices.data}</p>
      <p id="voyages">{String(day.data?.voyages.edges.length ?? "loading")}</p>
      <button id="remove" onClick={() => { override.now = "status=204"; remove.mutate({ berthId: first }); }}>remove</button>
      <p id="gone">{gone === null ? "null" : "there"}</p>
    </main>
  );
}

createRoot(document.getElementById("app")!).render(
  <StrictMode><QueryClientProvider client={client}><Board /></QueryClientProvider></StrictMode>,
);
`;

/** Code that must not compile: each line is an error, or the compiler reports its comment. */
const wrong = `import { useMutation, useQuery } from "@tanstack/react-query";
import { cachedBerths, berthsKey } from "./sdk/berths/cached.js";
import { connectBerths } from "./sdk/berths/index.js";
const harbour = connectBerths();
const berths = cachedBerths(harbour);
export function Wrong() {
  // @ts-expect-error -- an argument that has to be given
  useQuery(berths.getBerth());
  const one = useQuery(berths.getBerth({ berthId: "N-07" }));
  // @ts-expect-error -- a status that the call does not declare
  if (one.error?.status === 409) return null;
  // @ts-expect-error -- a field that an answer does not have
  one.data?.price;
  const reserve = useMutation(berths.reserveBerth());
  // @ts-expect-error -- a change that has to be given something
  reserve.mutate();
  // @ts-expect-error -- what changes something is no query
  useQuery(berths.reserveBerth());
  // @ts-expect-error -- a call that the contract does not have
  return berthsKey(harbour, "listBerthsPages");
}
`;

it.skipIf(chromium === undefined)(
  "described calls work with TanStack Query in React, with typed failures",
  async () => {
    const project = await appProject(
      { "src/main.tsx": app, "src/wrong.tsx": wrong },
      "{ cached: true, failures: return }",
    );
    expect(
      project.compile({
        jsx: "react-jsx",
        moduleResolution: "bundler",
        module: "esnext",
        exactOptionalPropertyTypes: false,
      }),
    ).toBe("");
    expect(project.compile({ jsx: "react-jsx" })).toBe("");
    const { says, click, textOf } = await openedApp(project, "src/main.tsx");
    await says("list", /^\S+ .*, \S+ /);
    await says("all", "2 2 and more");
    await says("voyages", /^\d+$/);
    await says("notices", "string");
    await click("more");
    await says("all", "4 4");
    for (let tries = 0; tries < 20 && (await textOf("all")).endsWith("and more"); tries++) {
      const before = await textOf("all");
      await click("more");
      await says("all", new RegExp(`^(?!${before}$)`));
    }
    expect(await textOf("all")).toMatch(/^(\d+) \1 in all$/);
    await click("change");
    await says("list", "freshly painted");
    await click("lose");
    await says("lost", "404 string berths.getBerth");
    await click("remove");
    await says("gone", "null");
  },
);
