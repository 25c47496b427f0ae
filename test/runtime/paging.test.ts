import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, it } from "vitest";
import { connection } from "../../runtimes/typescript/wire/connection.js";
import { pagesByCursor, pagesByLink } from "../../runtimes/typescript/wire/pages.js";
import { send } from "../../runtimes/typescript/wire/send.js";
import { packageRoot } from "../support/packageRoot.js";

interface Page {
  readonly items: readonly number[] | null;
  readonly link?: string;
  readonly next?: string | null;
}

interface Row {
  readonly by: "link" | "cursor";
  readonly from?: string;
  readonly why: string;
  readonly answers: readonly Page[];
  readonly asks: readonly (string | null)[];
  readonly items: readonly number[];
  readonly fails?: string;
}

const { rows } = JSON.parse(readFileSync(join(packageRoot, "vectors/paging.json"), "utf8")) as { rows: Row[] };
const base = "https://ostrel.example";

function pagesOf({ by, from = "", answers }: Row, asks: (string | null)[]): AsyncIterable<number> {
  if (by === "cursor") {
    const ask = (cursor: string | undefined): Promise<Page> => {
      asks.push(cursor ?? null);
      return Promise.resolve(answers[asks.length - 1] ?? { items: [] });
    };
    return pagesByCursor(
      "api.list",
      ask,
      ({ items }) => items,
      ({ next }) => next,
    );
  }
  const fetch = (url: string): Promise<Response> => {
    asks.push(url.slice(base.length));
    const { link, ...page } = answers[asks.length - 1] ?? { items: [] };
    return Promise.resolve(new Response(JSON.stringify(page), link === undefined ? {} : { headers: { link } }));
  };
  const api = connection("api", base, { fetch: fetch as typeof globalThis.fetch });
  const [path = "", query = ""] = from.split("?");
  const request = { call: "api.list", method: "GET", path, query: query.split("&"), answers: { 200: "json" } } as const;
  const ask = (followed: typeof api, onAnswer: (answer: { status: number; headers: Headers }) => void) =>
    send<Page>(followed, request, { onAnswer });
  return pagesByLink("api.list", api, ask, ({ items }) => items, { credentials: ["k"], onAnswer: undefined });
}

it.each(rows.map((row) => [`${row.by}: ${row.why}`, row] as const))("%s", async (_why, row) => {
  const asks: (string | null)[] = [];
  const items: number[] = [];
  let message: string | undefined;
  try {
    for await (const item of pagesOf(row, asks)) items.push(item);
  } catch (error) {
    message = (error as Error).message;
  }
  expect({ asks, items }).toEqual({ asks: row.asks, items: row.items });
  if (row.fails === undefined) expect(message).toBeUndefined();
  else expect(message).toContain(row.fails);
});
