import { GraphQLError, parse, Source, type DocumentNode } from "graphql";
import { didYouMean } from "../text/nearest.js";
import type { Place, SourceText } from "../problem/place.js";
import { placesOfError } from "./graphqlPlace.js";

export type ParsedText =
  | { readonly ok: true; readonly document: DocumentNode }
  | { readonly ok: false; readonly message: string; readonly places: readonly Place[] };

/**
 * Parses one GraphQL text, schema or query document. A text that is nested too deeply is an error, not a crash.
 *
 * @returns the syntax tree, or the problems
 */
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

/** The possible beginnings of a document, or the message as it is. */
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

/** The largest nesting of braces and parentheses. Deeper nesting would overflow the stack of readers. */
const deepest = 500;

const brackets = /"""(?:\\"""|[\s\S])*?"""|"(?:\\.|[^"\\\n])*"|#[^\n]*|[{([]|[})\]]/g;

/**
 * Returns the place where a text is nested too deeply. Lists are left to the readers: a schema is read without its
 * parts that are too deep.
 */
function placeOfDepth(text: string): number | undefined {
  // Most texts are too short to be nested so deeply.
  if (text.length < 2 * deepest) return undefined;
  let depth = 0;
  for (const { 0: found, index } of text.matchAll(brackets)) {
    if (found === "{" || found === "(") depth++;
    else if (found === "}" || found === ")") depth--;
    if (depth > deepest) return index;
  }
  return undefined;
}

/** Returns the place of the innermost bracket that is not closed. Strings and comments do not count. */
function neverClosed(text: string): number | undefined {
  const open: number[] = [];
  for (const { 0: found, index } of text.matchAll(brackets)) {
    if (/^[{([]$/.test(found)) open.push(index);
    else if (/^[})\]]$/.test(found)) open.pop();
  }
  return open.at(-1);
}
