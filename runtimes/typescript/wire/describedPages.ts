import type { CallOptions, Connection } from "./connection.js";
import {
  describedKey,
  keptAnswer,
  keyPart,
  type DescribedKey,
  type DescribedPages,
  type Kept,
  type KeptAs,
} from "./described.js";
import { linkedPage, linkedQuery } from "./pages.js";

/** How the pages of a call are requested. */
interface Walk<Page, Place> {
  readonly first: Place;
  readonly ask: (options: CallOptions) => (place: Place) => Promise<Page>;
  readonly next: (page: Page, place: Place) => Place | null | undefined;
}

/** A described call that reads a list page by page, by a cursor, a position or a page number. */
export function describedPages<Page, Place, Failure extends Error>(
  connection: Connection,
  { first, ask, next, ...kept }: KeptAs & Walk<Page, Place>,
): DescribedPages<Kept<Page>, Place, Failure> {
  return {
    queryKey: pagesKey(connection, kept),
    queryFn: async ({ pageParam, signal }) => keptAnswer(await ask({ signal })(pageParam)),
    initialPageParam: first,
    getNextPageParam: (last, _pages, place, places) =>
      last === null ? undefined : unread(next(last as Page, place), places),
  };
}

/** A page, and the query of the page that it links to; null if it links to none. */
export interface LinkedPage<Page> {
  readonly page: Page;
  readonly next: string | null;
}

/** How pages that link to each other are requested. */
interface LinkedWalk<Page, Own extends Connection> {
  readonly ask: (options: CallOptions) => (connection: Own) => Promise<Page>;
  /** Names of credentials in the query. A link never sets one. */
  readonly credentials: readonly string[];
}

/** A described call that reads a list page by page, by the links in the responses' headers. */
export function describedLinks<Page, Own extends Connection, Failure extends Error>(
  connection: Own,
  { ask, credentials, ...kept }: KeptAs & LinkedWalk<Page, Own>,
): DescribedPages<LinkedPage<Kept<Page>>, string | null, Failure> {
  return {
    queryKey: pagesKey(connection, kept),
    queryFn: async ({ pageParam, signal }) => {
      const { page, address, link } = await linkedPage(
        connection,
        (following, onAnswer) => ask({ signal, onAnswer })(following),
        { query: pageParam ?? undefined, credentials },
      );
      const next = linkedQuery(`${connection.contract}.${kept.call}`, link, address);
      return { page: keptAnswer(page), next: next ?? null };
    },
    initialPageParam: null,
    getNextPageParam: ({ next }, _pages, _place, places) => unread(next, places),
  };
}

/** The position of the page after one whose items were counted. An empty page is the last. */
export function placeAfter(items: readonly unknown[] | null | undefined, place: number): number | undefined {
  return items == null || items.length === 0 ? undefined : place + items.length;
}

/** The number of the page after a page. An empty page is the last. */
export function numberAfter(items: readonly unknown[] | null | undefined, place: number): number | undefined {
  return items == null || items.length === 0 ? undefined : place + 1;
}

/** The pages of a call become stale together with its responses, but are cached separately. */
function pagesKey(connection: Connection, kept: KeptAs): DescribedKey {
  return [...describedKey(connection, kept), "pages"];
}

/** A position that was not requested before. Following one twice would never end. */
function unread<Place>(next: Place | null | undefined, places: readonly Place[]): Place | undefined {
  if (next == null || next === "") return undefined;
  const written = (place: Place): string => JSON.stringify(keyPart(place));
  const said = written(next);
  return places.some((place) => written(place) === said) ? undefined : next;
}
