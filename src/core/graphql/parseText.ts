import { GraphQLError, parse, Source, type DocumentNode } from "graphql";
import { didYouMean } from "../text/nearest.js";
import type { Place, SourceText } from "../problem/place.js";
import { placesOfError } from "./graphqlPlace.js";

export type ParsedText =
  | { readonly ok: true; readonly document: DocumentNode }
  | { readonly ok: false; readonly message: string; readonly places: readonly Place[] };

/** Parses one GraphQL text, schema or query document; a text nested beyond reason is a mistake too, not a crash. */
export function parseText({ document, text }: SourceText): ParsedText {
  const tooDeep = placeOfDepth(text);
  if (tooDeep !== undefined)
    return {
      ok: false,
      message: `it is nested more than ${String(deepest)} levels deep`,
      places: [{ document, offset: tooDeep, length: 1 }],
    };
  try {
    return { ok: true, document: parse(new Source(text, document)) };
  } catch (error) {
    if (error instanceof GraphQLError) {
      const open = error.message.endsWith("<EOF>.") ? neverClosed(text) : undefined;
      return open === undefined
        ? { ok: false, message: messageOf(error.message), places: placesOfError(error) }
        : {
            ok: false,
            message: `this \`${text.charAt(open)}\` is never closed`,
            places: [{ document, offset: open, length: 1 }],
          };
    }
    if (error instanceof RangeError)
      return { ok: false, message: "it is nested too deeply", places: [{ document, offset: 0, length: 1 }] };
    throw error;
  }
}

/** What a document can begin with, or the message as it is. */
function messageOf(message: string): string {
  const [, word] = /^Syntax Error: Unexpected Name "(\w+)"\.$/.exec(message) ?? [];
  if (word === undefined) return message.replaceAll('"', "`");
  const hint = didYouMean(word, starts) ?? `There it can begin with ${starts.map((each) => `\`${each}\``).join(", ")}.`;
  return `nothing begins with \`${word}\`. ${hint}`;
}

const starts = [
  ...["query", "mutation", "subscription", "fragment"],
  ...["type", "interface", "union", "enum", "input", "scalar", "directive", "schema", "extend"],
];

/** As many braces and parentheses may be in each other; whoever walks through more runs out of room. */
const deepest = 500;

const brackets = /"""(?:\\"""|[\s\S])*?"""|"(?:\\.|[^"\\\n])*"|#[^\n]*|[{([]|[})\]]/g;

/** Where a text is nested too deeply. Lists are left to who reads them: a schema is read without what is too deep. */
function placeOfDepth(text: string): number | undefined {
  // Most texts could not be nested so deeply.
  if (text.length < 2 * deepest) return undefined;
  let depth = 0;
  for (const { 0: found, index } of text.matchAll(brackets)) {
    if (found === "{" || found === "(") depth++;
    else if (found === "}" || found === ")") depth--;
    if (depth > deepest) return index;
  }
  return undefined;
}

/** Where the innermost bracket stands that nothing closes; what strings and comments hold does not count. */
function neverClosed(text: string): number | undefined {
  const open: number[] = [];
  for (const { 0: found, index } of text.matchAll(brackets)) {
    if (/^[{([]$/.test(found)) open.push(index);
    else if (/^[})\]]$/.test(found)) open.pop();
  }
  return open.at(-1);
}
