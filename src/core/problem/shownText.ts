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

/** A text in which places are shown. It is read once, because a large one has many places. */
export class ShownText {
  private starts: readonly number[] | undefined;
  /** Undefined until a value is needed; "none" for a text that cannot be read. */
  private spans: Spans | "none" | undefined;

  constructor(readonly text: string) {}

  /**
   * Returns the line and column of a place. If its pointer does not resolve, the result is the deepest existing
   * ancestor: the text may have changed, or the missing member is the problem.
   */
  position(place: Place): Position {
    if ("offset" in place) return this.positionAt(place.offset, place.length);
    this.spans ??= readSpans(this.text) ?? "none";
    // A text that cannot be read has no inside. Its beginning is better than nothing.
    if (this.spans === "none") return { line: 1, column: 1, length: 1 };
    const { key, start, end, isContainer } = this.spans.find(pointerTokens(place.pointer));
    const [from, to] = key && (place.atKey === true || isContainer) ? key : [start, end];
    return this.positionAt(from, Math.max(1, to - from));
  }

  /** Line and column of a character offset. */
  positionAt(offset: number, length = 1): Position {
    const end = Math.min(offset, this.text.length);
    const starts = this.lineStarts();
    // The last line that begins at or before the offset.
    let [low, high] = [0, starts.length - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if ((starts[middle] ?? 0) <= end) low = middle;
      else high = middle - 1;
    }
    return { line: low + 1, column: end - (starts[low] ?? 0) + 1, length: Math.max(1, length) };
  }

  /** Returns a line by its one-based number, without its line ending; "" after the last. */
  line(line: number): string {
    const starts = this.lineStarts();
    const start = starts[line - 1];
    if (start === undefined) return "";
    const end = (starts[line] ?? this.text.length + 1) - 1;
    // Only one character is read, because a whole contract may be on one line.
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
  // A JSON text is also a YAML text, but its values are found many times faster as JSON.
  if (/^\s*[{[]/.test(text) && isJson(text)) return new JsonSpans(text);
  try {
    return new YamlSpans(text);
  } catch (error) {
    // The text is not valid, or nested deeper than the parser supports.
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
