import type { CallOptions, Connection, Layer } from "./connection.js";
import { failure } from "./failure.js";

/** The items of a page. A server may leave an empty list out. */
type Items<Page, Item> = (page: Page) => readonly Item[] | null | undefined;

/** Iterates over pages, each of which contains the cursor of the next. */
export function pagesByCursor<Page, Item>(
  call: string,
  ask: (cursor: string | undefined) => Promise<Page>,
  itemsOf: Items<Page, Item>,
  nextOf: (page: Page) => string | null | undefined,
): AsyncGenerator<Item, void, undefined> {
  return pagesByPlace(call, ask, itemsOf, nextOf);
}

/**
 * The same for cursors of another type.
 *
 * @throws the failure of the call if a page repeats, and those of each page
 */
export async function* pagesByPlace<Page, Item, Cursor extends string | number | bigint | object>(
  call: string,
  ask: (cursor: Cursor | undefined) => Promise<Page>,
  itemsOf: Items<Page, Item>,
  nextOf: (page: Page) => Cursor | null | undefined,
): AsyncGenerator<Item, void, undefined> {
  const seen = new Set<string>();
  for (let cursor: Cursor | undefined; ;) {
    const page = await ask(cursor);
    yield* itemsOf(page) ?? [];
    const next = nextOf(page) ?? "";
    if (next === "") return;
    const said = typeof next === "object" ? JSON.stringify(next) : next.toString();
    // Following it would never end.
    if (seen.has(said))
      throw failure(call, "a page gives a next page that was already read", {
        status: "malformed",
        httpStatus: 200,
        body: said,
      });
    seen.add(said);
    cursor = next;
  }
}

type Place = string | number | bigint | null | undefined;

/** The next page according to a response, if the cursor is a string. */
export function textPlace(said: Place): string | undefined {
  return said?.toString();
}

/**
 * The next page according to a response, if the cursor is a number.
 *
 * @throws the failure of the call if the cursor is not a number
 */
export function numberPlace(call: string, said: Place): number | undefined {
  const text = said?.toString() ?? "";
  if (text === "") return undefined;
  const place = Number(text);
  if (Number.isNaN(place)) throw noPlace(call, text);
  return place;
}

/**
 * The next page according to a response, if the cursor is an integer of any size.
 *
 * @throws the failure of the call if the cursor is not an integer
 */
export function bigintPlace(call: string, said: Place): bigint | undefined {
  const text = said?.toString() ?? "";
  if (text === "") return undefined;
  if (!/^-?\d+$/.test(text)) throw noPlace(call, text);
  return BigInt(text);
}

function noPlace(call: string, body: string): Error {
  return failure(call, "a page gives a next page that is not a number", {
    status: "malformed",
    httpStatus: 200,
    body,
  });
}

/** Iterates over pages by offset until one is empty. */
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

/** Iterates over pages by page number until one is empty. */
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

/** The options for following links, besides those for pages. */
export interface Linked {
  /** Names of credentials in the query. A link never sets one. */
  readonly credentials: readonly string[];
  readonly onAnswer: CallOptions["onAnswer"];
}

/**
 * Iterates over pages, each of which links to the next (RFC 8288). The next page is requested with the query of the
 * link, whatever the contract says about it, and at the address of the first page. A server therefore cannot redirect
 * credentials.
 *
 * @param call "contract.call", for failures
 * @param ask performs the call with a connection
 * @throws the failure of the call if a page repeats or a link leads elsewhere, and those of each page
 */
export async function* pagesByLink<Page, Item, Own extends Connection>(
  call: string,
  connection: Own,
  ask: (connection: Own, onAnswer: NonNullable<CallOptions["onAnswer"]>) => Promise<Page>,
  itemsOf: Items<Page, Item>,
  { credentials, onAnswer }: Linked,
): AsyncGenerator<Item, void, undefined> {
  const seen = new Set<string>();
  const told = (text: string): string => pairsOf(text).sort().join("&");
  for (let query: string | undefined; ;) {
    const { page, address, link } = await linkedPage(
      connection,
      (following, onEach) =>
        ask(following, (answer) => {
          onEach(answer);
          onAnswer?.(answer);
        }),
      { query, credentials },
    );
    yield* itemsOf(page) ?? [];
    seen.add(told(address));
    const next = linkedQuery(call, link, address);
    if (next === undefined) return;
    if (seen.has(told(withQuery(address, next, credentials))))
      throw misled(call, "the link to the next page leads to a page that was already read", next);
    query = next;
  }
}

/** The page to request, of pages that link to each other. */
interface LinkedPlace {
  /** The query of the link to it; undefined for the first page. */
  readonly query: string | undefined;
  readonly credentials: readonly string[];
}

/** Requests one page: its response, its address, and its `Link` header. */
export async function linkedPage<Page, Own extends Connection>(
  connection: Own,
  ask: (connection: Own, onAnswer: NonNullable<CallOptions["onAnswer"]>) => Promise<Page>,
  { query, credentials }: LinkedPlace,
): Promise<{ readonly page: Page; readonly address: string; readonly link: string }> {
  let address = "";
  let link = "";
  const follow: Layer = (request, next) => {
    address = query === undefined ? request.url : withQuery(request.url, query, credentials);
    return next({ ...request, url: address });
  };
  const page = await ask({ ...connection, around: [follow, ...connection.around] }, ({ headers }) => {
    link = headers.get("link") ?? "";
  });
  return { page, address, link };
}

/**
 * The query of the next page that a page links to; undefined if it links to none.
 *
 * @throws the failure of the call if the link leads to another URL
 */
export function linkedQuery(call: string, link: string, address: string): string | undefined {
  const target = nextTarget(link);
  if (target === undefined) return undefined;
  const next = resolved(target, address);
  if (next === undefined) throw misled(call, "the link to the next page leads to another address", target);
  return next;
}

function misled(call: string, message: string, body: string): Error {
  return failure(call, message, { status: "malformed", httpStatus: 200, body });
}

/** The query of a link to the same address; undefined if the link leads to another address. */
function resolved(target: string, address: string): string | undefined {
  // An address may be relative to the page that the app runs in.
  const { href = "http://relative.invalid" } = (globalThis as { location?: { href?: string } }).location ?? {};
  try {
    const here = new URL(address, href);
    const there = new URL(target, here);
    return here.origin === there.origin && here.pathname === there.pathname ? there.search.slice(1) : undefined;
  } catch {
    return undefined;
  }
}

/** An address with another query. It keeps its own credentials. */
function withQuery(address: string, query: string, credentials: readonly string[]): string {
  const isCredential = (pair: string): boolean => credentials.includes(nameOf(pair));
  const pairs = [
    ...query.split("&").filter((pair) => pair !== "" && !isCredential(pair)),
    ...pairsOf(address).filter(isCredential),
  ];
  const [path = ""] = address.split("?", 1);
  return pairs.length === 0 ? path : `${path}?${pairs.join("&")}`;
}

function pairsOf(address: string): string[] {
  const at = address.indexOf("?");
  return at < 0 ? [] : address.slice(at + 1).split("&");
}

function nameOf(pair: string): string {
  // The smallest type library of the platform has no iteration for it.
  let name = "";
  new URLSearchParams(pair).forEach((_value, key) => (name = key));
  return name;
}

/** The target with the relation "next" (RFC 8288, section 3). */
function nextTarget(header: string): string | undefined {
  for (const [, target = "", parameters = ""] of header.matchAll(
    /<([^>]*)>((?:\s*;\s*[\w!#$&+.^`|~-]+\*?\s*=\s*(?:"(?:[^"\\]|\\.)*"|[^",;\s]+))*)/g,
  )) {
    const relation = /;\s*rel\s*=\s*(?:"([^"]*)"|([^",;\s]+))/i.exec(parameters);
    if ((relation?.[1] ?? relation?.[2] ?? "").toLowerCase().split(/\s+/).includes("next")) return target;
  }
  return undefined;
}
