import { YAMLException } from "js-yaml";
import { JsonSpans } from "./jsonSpans.js";
import { pointerTokens, type Place } from "./place.js";
import type { Position } from "./position.js";
import type { ValueSpan } from "./valueSpan.js";
import { YamlSpans } from "./yamlSpans.js";

/** Finds values in one text. */
interface Spans {
  readonly find: (path: readonly string[]) => ValueSpan;
}

/** A text that places are shown in; it is looked through once, because a large one is asked for many places. */
export class ShownText {
  private starts: readonly number[] | undefined;
  /** Undefined until a value is asked for; "none" for a text that cannot be read. */
  private spans: Spans | "none" | undefined;

  constructor(readonly text: string) {}

  /**
   * Line and column of a place. A pointer that leads nowhere (the text may have changed, or the missing member is the
   * problem) falls back to the deepest ancestor that exists.
   */
  position(place: Place): Position {
    if ("offset" in place) return this.positionAt(place.offset, place.length);
    this.spans ??= readSpans(this.text) ?? "none";
    // A text that cannot be read has no inside; its beginning is better than nothing.
    if (this.spans === "none") return { line: 1, column: 1, length: 1 };
    const { key, start, end, isContainer } = this.spans.find(pointerTokens(place.pointer));
    const [from, to] = key && (place.atKey === true || isContainer) ? key : [start, end];
    return this.positionAt(from, Math.max(1, to - from));
  }

  /** Line and column of a character offset. */
  positionAt(offset: number, length = 1): Position {
    const end = Math.min(offset, this.text.length);
    const starts = this.lineStarts();
    // The last line that begins at the offset or before it.
    let [low, high] = [0, starts.length - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if ((starts[middle] ?? 0) <= end) low = middle;
      else high = middle - 1;
    }
    return { line: low + 1, column: end - (starts[low] ?? 0) + 1, length: Math.max(1, length) };
  }

  /** A line by its one-based number, without its end; "" beyond the last. */
  line(line: number): string {
    const starts = this.lineStarts();
    const start = starts[line - 1];
    if (start === undefined) return "";
    const end = (starts[line] ?? this.text.length + 1) - 1;
    // Looked at, not searched for: a whole contract may stand on one line.
    return this.text.slice(start, this.text.charAt(end - 1) === "\r" ? end - 1 : end);
  }

  /** Offsets at which lines begin. */
  private lineStarts(): readonly number[] {
    if (this.starts) return this.starts;
    const starts = [0];
    for (let at = this.text.indexOf("\n"); at !== -1; at = this.text.indexOf("\n", at + 1)) starts.push(at + 1);
    this.starts = starts;
    return starts;
  }
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
