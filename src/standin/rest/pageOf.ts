import type { Field, Parameter, Reference, RestOperation } from "../../core/contract/model.js";
import { resolveReference, resolveShape, type TypeTable } from "../../core/contract/resolveShape.js";
import { isData } from "../../core/text/parseData.js";
import { listSlot } from "../deeds.js";

/** The facts for cutting out a page. */
export interface PageRequest {
  readonly type: Reference;
  readonly types: TypeTable;
  readonly url: URL;
  readonly operation: RestOperation;
  /** The number of items in all, if an override sets it. */
  readonly most: number | undefined;
}

const cursorNames = /^(page_?)?(cursor|token|after|starting_?after|continuation(_?token)?|marker|next_?token)$/i;
const offsetNames = /^(offset|skip|start(_?index)?)$/i;
const numberNames = /^(page|page_?(number|no|index))$/i;
const sizeNames = /^(limit|size|count|first|take|top|(per|page)_?(page|size|limit)|max_?(results|items)|page_?size)$/i;

/** Fields next to a list, by their meaning. */
const beside = {
  total: /^(total|total_?(count|items|elements|results)|count)$/i,
  pages: /^(total_?pages|page_?count|pages)$/i,
  more: /^(has_?(more|next(_?page)?)|more)$/i,
  next: /^(next|next_?(cursor|page_?token|token|marker|page|offset)|cursor|continuation(_?token)?)$/i,
  number: numberNames,
  offset: offsetNames,
  size: sizeNames,
} as const;

const cursorMark = "after-";

/**
 * Cuts the requested page out of a response with all items, and adds how to get the next one: a cursor, an offset, a
 * number or a link (RFC 8288), depending on the operation's parameters and the response's fields.
 *
 * @param answer the whole response, with a list of all items
 * @returns the response with one page, and headers
 */
export function pageOf(
  answer: unknown,
  { type, types, url, operation, most }: PageRequest,
): { readonly value: unknown; readonly headers: readonly (readonly [string, string])[] } {
  const slot = listSlot(type, types);
  const field = slot?.path[0];
  const all = field === undefined ? answer : isData(answer) ? answer[field] : undefined;
  if (!Array.isArray(all)) return { value: answer, headers: [] };
  const items = most === undefined ? (all as unknown[]) : repeated(all as unknown[], most);
  const parameters = operation.parameters.filter((each) => each.in === "query");
  const named = (names: RegExp) => parameters.find((each) => names.test(each.name));
  const size = named(sizeNames);
  const sizeAsked = wholeNumber(url, size?.name) ?? numberOf(size?.default);
  const isLinked = hasLinks(operation);
  const length =
    sizeAsked ??
    (parameters.some(({ name }) => isPaging(name)) ? usualSize : isLinked ? linkedSize : Math.max(items.length, 1));
  const cursor = named(cursorNames);
  const number = named(numberNames);
  const offset = named(offsetNames);
  const firstPage = numberOf(number?.default) === 0 ? 0 : 1;
  const pageNumber = wholeNumber(url, number?.name) ?? firstPage;
  const hasWay = cursor !== undefined || number !== undefined || offset !== undefined;
  const sentCursor = cursor
    ? url.searchParams.get(cursor.name)
    : isLinked && !hasWay
      ? url.searchParams.get(linkParameter)
      : null;
  const start = sentCursor
    ? startOf(sentCursor)
    : number
      ? (pageNumber - firstPage) * length
      : (wholeNumber(url, offset?.name) ?? 0);
  const page = items.slice(start, start + length);
  const end = start + page.length;
  const hasMore = end < items.length && page.length > 0;
  const headers = hasMore ? linkHeader(operation, url, { cursor, number, offset, end, pageNumber }) : [];
  if (field === undefined || !isData(answer)) return { value: page, headers };
  const said = { ...answer, [field]: page };
  const told: Record<string, unknown> = {};
  for (const [name, value] of Object.entries(said)) {
    if (name === field) continue;
    if (beside.total.test(name) && typeof value === "number") told[name] = items.length;
    else if (beside.pages.test(name) && typeof value === "number")
      told[name] = Math.max(1, Math.ceil(items.length / length));
    else if (beside.more.test(name) && typeof value === "boolean") told[name] = hasMore;
    else if (beside.number.test(name) && typeof value === "number") told[name] = pageNumber;
    else if (beside.offset.test(name) && typeof value === "number") told[name] = start;
    else if (beside.size.test(name) && typeof value === "number") told[name] = length;
  }
  const shape = resolveShape(type.shape, types);
  const next = shape.kind === "record" ? shape.fields.find(({ name }) => beside.next.test(name)) : undefined;
  if (!next) return { value: { ...said, ...told }, headers };
  if (hasMore) told[next.name] = isNumeric(next, types) ? (number ? pageNumber + 1 : end) : cursorMark + String(end);
  else if (resolveReference(next.type, types).nullable) told[next.name] = null;
  else if (next.required) told[next.name] = isNumeric(next, types) ? 0 : "";
  const { [next.name]: _made, ...others } = said;
  return { value: { ...others, ...told }, headers };
}

const usualSize = 20;

function isPaging(name: string): boolean {
  return [cursorNames, offsetNames, numberNames, sizeNames].some((names) => names.test(name));
}

/** Returns as many items as an override sets, by repeating the existing ones. */
function repeated(items: readonly unknown[], count: number): unknown[] {
  return items.length === 0 ? [] : Array.from({ length: count }, (_, at) => items[at % items.length]);
}

function isNumeric({ type }: Field, types: TypeTable): boolean {
  return ["integer", "number"].includes(resolveReference(type, types).shape.kind);
}

/** The start of the next page in a cursor of ours. An unknown cursor means the first page. */
function startOf(cursor: string): number {
  const at = cursor.startsWith(cursorMark) ? Number(cursor.slice(cursorMark.length)) : Number(cursor);
  return Number.isInteger(at) && at >= 0 ? at : 0;
}

function wholeNumber({ searchParams }: URL, name: string | undefined): number | undefined {
  const text = name === undefined ? null : searchParams.get(name);
  return text !== null && /^\d+$/.test(text) ? Number(text) : undefined;
}

function numberOf(value: unknown): number | undefined {
  return typeof value === "number" ? value : undefined;
}

/** The query parameter of the next page in links, for an operation without a parameter for it. */
export const linkParameter = "rhema-page";

/** So few items that the made-up ones have several pages. */
const linkedSize = 3;

/** Returns whether an operation responds with links (RFC 8288). */
export function hasLinks({ responses }: RestOperation): boolean {
  return responses.some(({ headers }) => headers.some(({ name }) => /^link$/i.test(name)));
}

/** The address of the next page, if the operation responds with links. */
function linkHeader(
  operation: RestOperation,
  url: URL,
  {
    cursor,
    number,
    offset,
    end,
    pageNumber,
  }: {
    readonly cursor: Parameter | undefined;
    readonly number: Parameter | undefined;
    readonly offset: Parameter | undefined;
    readonly end: number;
    readonly pageNumber: number;
  },
): [string, string][] {
  if (!hasLinks(operation)) return [];
  const way = cursor ?? number ?? offset;
  const next = new URL(url);
  const value = way === cursor ? cursorMark + String(end) : String(way === number ? pageNumber + 1 : end);
  next.searchParams.set(way?.name ?? linkParameter, value);
  return [["link", `<${next.href}>; rel="next"`]];
}
