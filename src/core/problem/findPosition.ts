import { YAMLException } from "js-yaml";
import { JsonSpans } from "./jsonSpans.js";
import { pointerTokens, type Place } from "./place.js";
import { positionAt, type Position } from "./textLines.js";
import type { ValueSpan } from "./valueSpan.js";
import { YamlSpans } from "./yamlSpans.js";

const mostTextsKept = 4;

/** Finds values in one text. */
interface Spans {
  readonly find: (path: readonly string[]) => ValueSpan;
}

/**
 * Finds line and column of a place in its text. A pointer that leads nowhere (the text may have changed, or the
 * missing member is the problem) falls back to the deepest ancestor that exists.
 */
export function findPosition(place: Place, text: string): Position {
  if ("offset" in place) return positionAt(text, place.offset, place.length);
  const found = spansOf(text)?.find(pointerTokens(place.pointer));
  // A text that cannot be read has no inside; its beginning is better than nothing.
  if (!found) return { line: 1, column: 1, length: 1 };
  const { key, start, end, isContainer } = found;
  const [from, to] = key && (place.atKey === true || isContainer) ? key : [start, end];
  return positionAt(text, from, Math.max(1, to - from));
}

const spansByText = new Map<string, Spans | undefined>();

function spansOf(text: string): Spans | undefined {
  if (spansByText.has(text)) return spansByText.get(text);
  const spans = readSpans(text);
  if (spansByText.size >= mostTextsKept) spansByText.clear();
  spansByText.set(text, spans);
  return spans;
}

function readSpans(text: string): Spans | undefined {
  // A JSON text is a YAML text too, and many times faster to find one's way in as what it is.
  if (/^\s*[{[]/.test(text) && isJson(text)) return new JsonSpans(text);
  try {
    return new YamlSpans(text);
  } catch (error) {
    // Not valid, or nested beyond what the parser can follow.
    if (error instanceof YAMLException || error instanceof RangeError) return undefined;
    throw error;
  }
}

function isJson(text: string): boolean {
  try {
    JSON.parse(text);
    return true;
  } catch {
    // YAML in its flow style, for example.
    return false;
  }
}
