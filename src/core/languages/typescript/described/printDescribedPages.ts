import type { LoweredCall } from "../../../sdk/lower/loweredSdk.js";
import type { PageReading } from "../../../sdk/lower/pageReading.js";
import type { RestContext } from "../contractContext.js";
import { quoted } from "../names/escape.js";
import { nextPlace, pageAsked, placeType, reached } from "../calls/pageAsked.js";

/** The call whose pages are described. */
export interface PagedCall extends LoweredCall {
  readonly pages: PageReading;
  /** The type of a response. */
  readonly answer: string;
  /** The call with the given arguments, and the options of one request. */
  readonly perform: (given: string) => string;
}

/** Prints the description of all pages of a call: its type, and an expression for it. */
export function printDescribedPages(
  { call, label, pages, answer, perform }: PagedCall,
  context: RestContext,
): { readonly type: string; readonly value: string } {
  const names = context.names.rest(call);
  const kept = `call: ${quoted(names.call)},\n        args`;
  const { connection } = context.names.contract;
  if (pages.paging.by === "link" || !pages.argument) {
    const credentials = pages.credentials.map(quoted).join(", ");
    return {
      type: `wire.DescribedPages<wire.LinkedPage<wire.Kept<${answer}>>, string | null, ${names.failure}>`,
      value: `wire.describedLinks(connection, {\n        ${kept},\n        ask: (options) => (connection: ${connection}) => ${perform("args")},\n        credentials: [${credentials}],\n      })`,
    };
  }
  const type = placeType(pages, context);
  const isByCursor = pages.paging.by === "cursor";
  const place = isByCursor ? `${type ?? "string"} | undefined` : "number";
  const asked = pageAsked(pages, { argument: pages.argument, type: place, perform: names.perform });
  const more = isByCursor ? `${asked.place} === undefined ? {} : { ${asked.given} }` : `{ ${asked.given} }`;
  const counted = pages.paging.by === "offset" ? "placeAfter" : "numberAfter";
  const next = isByCursor
    ? `(page) => ${nextPlace(pages, quoted(label))}`
    : `(page, place) => wire.${counted}(${reached(pages.items)}, place)`;
  return {
    type: `wire.DescribedPages<wire.Kept<${answer}>, ${place}, ${names.failure}>`,
    value: `wire.describedPages(connection, {\n        ${kept},\n        first: ${isByCursor ? "undefined" : asked.start},\n        ask: (options) => ${asked.at(more, perform)},\n        next: ${next},\n      })`,
  };
}
