import type { Field, Parameter, Reference, RestOperation } from "../../core/contract/model.js";
import { resolveReference, resolveShape, type TypeTable } from "../../core/contract/resolveShape.js";
import { isData } from "../../core/text/parseData.js";
import { listSlot } from "../deeds.js";

/** What a page is cut by. */
export interface PageRequest {
  readonly type: Reference;
  readonly types: TypeTable;
  readonly url: URL;
  readonly operation: RestOperation;
  /** How many things there shall be in all, where somebody overrides it. */
  readonly most: number | undefined;
}

const cursorNames = /^(page_?)?(cursor|token|after|starting_?after|continuation(_?token)?|marker|next_?token)$/i;
const offsetNames = /^(offset|skip|start(_?index)?)$/i;
const numberNames = /^(page|page_?(number|no|index))$/i;
const sizeNames = /^(limit|size|count|first|take|top|(per|page)_?(page|size|limit)|max_?(results|items)|page_?size)$/i;

/** Fields beside a list, by what they say of it. */
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
 * Cuts the page that was asked for out of an answer with all things in it, and says beside it how to go on: with a
 * cursor, an offset, a number or a link (RFC 8288), as the operation's parameters and the answer's fields have it.
 *
 * @param answer the whole answer, with a list of all things
 * @returns the answer with one page, and headers
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

/** Returns as many items as an override asks for, and repeats those that exist. */
function repeated(items: readonly unknown[], count: number): unknown[] {
  return items.length === 0 ? [] : Array.from({ length: count }, (_, at) => items[at % items.length]);
}

function isNumeric({ type }: Field, types: TypeTable): boolean {
  return ["integer", "number"].includes(resolveReference(type, types).shape.kind);
}

/** Where a cursor of ours says that the next page begins; one that somebody made up begins at the first. */
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

/** How a link says where the next page begins, of an operation that has no parameter for it. */
export const linkParameter = "rhema-page";

/** So few that there are several pages of what is made up. */
const linkedSize = 3;

/** Whether an operation answers with links (RFC 8288). */
export function hasLinks({ responses }: RestOperation): boolean {
  return responses.some(({ headers }) => headers.some(({ name }) => /^link$/i.test(name)));
}

/** The address of the next page, where the operation says that it answers with links. */
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
