import type { CallOptions } from "./connection.js";
import { failure } from "./failure.js";

/** The items of a page; a server may leave an empty list out. */
type Items<Page, Item> = (page: Page) => readonly Item[] | null | undefined;

/** Goes through pages of which each says where the next one begins. */
export async function* pagesByCursor<Page, Item>(
  call: string,
  ask: (cursor: string | undefined) => Promise<Page>,
  itemsOf: Items<Page, Item>,
  nextOf: (page: Page) => string | null | undefined,
): AsyncGenerator<Item, void, undefined> {
  let cursor: string | undefined;
  for (;;) {
    const page = await ask(cursor);
    yield* itemsOf(page) ?? [];
    const next = nextOf(page) ?? "";
    if (next === "") return;
    // Following it would never end.
    if (next === cursor)
      throw failure(call, "a page names itself as the next one", { status: "malformed", httpStatus: 200, body: next });
    cursor = next;
  }
}

/** Goes through pages that are asked for by how many items to pass over, until one is empty. */
export async function* pagesByOffset<Page, Item>(
  ask: (offset: number) => Promise<Page>,
  itemsOf: Items<Page, Item>,
  first: number,
): AsyncGenerator<Item, void, undefined> {
  for (let offset = first; ;) {
    const items = itemsOf(await ask(offset)) ?? [];
    if (items.length === 0) return;
    yield* items;
    offset += items.length;
  }
}

/** Goes through pages that are asked for by their number, until one is empty. */
export async function* pagesByNumber<Page, Item>(
  ask: (number: number) => Promise<Page>,
  itemsOf: Items<Page, Item>,
  first: number,
): AsyncGenerator<Item, void, undefined> {
  for (let number = first; ; number++) {
    const items = itemsOf(await ask(number)) ?? [];
    if (items.length === 0) return;
    yield* items;
  }
}

/**
 * Goes through pages of which each links to the next one (RFC 8288). Only the arguments that the link sets are taken
 * from it, never its address: a server cannot send credentials elsewhere.
 *
 * @param argumentsOf makes an argument of the text that a link's query has for it, by its name there
 */
export async function* pagesByLink<Page, Item, Args extends object>(
  ask: (given: Partial<Args>, onAnswer: NonNullable<CallOptions["onAnswer"]>) => Promise<Page>,
  itemsOf: Items<Page, Item>,
  argumentsOf: Readonly<Record<string, (text: string) => Partial<Args>>>,
  onAnswer: CallOptions["onAnswer"],
): AsyncGenerator<Item, void, undefined> {
  const seen = new Set<string>();
  for (let given: Partial<Args> = {}; ;) {
    let link = "";
    const page = await ask(given, (answer) => {
      link = answer.headers.get("link") ?? "";
      onAnswer?.(answer);
    });
    yield* itemsOf(page) ?? [];
    const query = nextQuery(link);
    if (query === undefined || seen.has(query)) return;
    seen.add(query);
    given = {};
    for (const [name, text] of new URLSearchParams(query)) Object.assign(given, argumentsOf[name]?.(text));
  }
}

/** The query of the target whose relation is "next" (RFC 8288, section 3). */
function nextQuery(header: string): string | undefined {
  for (const [, target = "", parameters = ""] of header.matchAll(
    /<([^>]*)>((?:\s*;\s*[\w!#$&+.^`|~-]+\*?\s*=\s*(?:"(?:[^"\\]|\\.)*"|[^",;\s]+))*)/g,
  )) {
    const relation = /;\s*rel\s*=\s*(?:"([^"]*)"|([^",;\s]+))/i.exec(parameters);
    if (!(relation?.[1] ?? relation?.[2] ?? "").toLowerCase().split(/\s+/).includes("next")) continue;
    return /\?([^#]*)/.exec(target)?.[1];
  }
  return undefined;
}
