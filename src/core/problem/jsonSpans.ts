import type { ValueSpan } from "./valueSpan.js";

/**
 * Finds values in a valid JSON text (RFC 8259). Only the objects and lists on the way to a value are read, each once. A
 * tree of a large text would take a hundred times its size.
 */
export class JsonSpans {
  private readonly inside = new Map<number, ReadonlyMap<string, ValueSpan>>();
  /** The ends of long objects and lists, by their start. Otherwise, nested ones would be read once for each level. */
  private readonly ends = new Map<number, number>();
  private whole: ValueSpan | undefined;

  /** @param text valid JSON */
  constructor(private readonly text: string) {}

  /** Returns the value at the end of a path of keys and indices, or the deepest existing one on the way. */
  find(path: readonly string[]): ValueSpan {
    let found = (this.whole ??= this.value(this.afterSpace(0)));
    for (const token of path) {
      const next = found.isContainer ? this.members(found.start).get(token) : undefined;
      if (!next) break;
      found = next;
    }
    return found;
  }

  /** The members of an object by key, of repeated keys the last; the items of a list by index. */
  private members(start: number): ReadonlyMap<string, ValueSpan> {
    const known = this.inside.get(start);
    if (known) return known;
    const { text } = this;
    const isObject = text.charAt(start) === "{";
    const found = new Map<string, ValueSpan>();
    let at = this.afterSpace(start + 1);
    for (let index = 0; text.charAt(at) !== "}" && text.charAt(at) !== "]"; index++) {
      let key: [number, number] | undefined;
      if (isObject) {
        key = [at, this.stringEnd(at)];
        at = this.afterSpace(this.afterSpace(key[1]) + 1);
      }
      const value = this.value(at);
      const name = key ? (JSON.parse(text.slice(...key)) as string) : String(index);
      found.set(name, key ? { ...value, key } : value);
      at = this.afterSpace(value.end);
      if (text.charAt(at) !== ",") break;
      at = this.afterSpace(at + 1);
    }
    this.inside.set(start, found);
    return found;
  }

  private value(start: number): ValueSpan {
    const { text } = this;
    const first = text.charAt(start);
    if (first === '"') return { start, end: this.stringEnd(start), isContainer: false };
    if (first !== "{" && first !== "[") return { start, end: matchEnd(primitive, text, start), isContainer: false };
    const known = this.ends.get(start);
    if (known !== undefined) return { start, end: known, isContainer: true };
    const open: number[] = [];
    for (let at = start; ;) {
      bracketOrQuote.lastIndex = at;
      const mark = bracketOrQuote.exec(text)?.[0];
      if (mark === undefined) return { start, end: text.length, isContainer: true };
      at = bracketOrQuote.lastIndex;
      if (mark === '"') at = this.stringEnd(at - 1);
      else if (mark === "{" || mark === "[") open.push(at - 1);
      else {
        const begun = open.pop() ?? start;
        if (at - begun > longContainer) this.ends.set(begun, at);
        if (open.length === 0) return { start, end: at, isContainer: true };
      }
    }
  }

  /** @param start the offset of the opening quote */
  private stringEnd(start: number): number {
    const { text } = this;
    for (let at = text.indexOf('"', start + 1); at >= 0; at = text.indexOf('"', at + 1)) {
      let before = at - 1;
      while (text.charCodeAt(before) === backslash) before--;
      // An even number of backslashes are characters of their own; an odd one escapes the quote.
      if ((at - 1 - before) % 2 === 0) return at + 1;
    }
    return text.length;
  }

  private afterSpace(start: number): number {
    return matchEnd(space, this.text, start);
  }
}

/** Shorter ones are read again quickly. */
const longContainer = 4096;
const backslash = 0x5c;
const space = /[ \t\r\n]*/y;
const primitive = /[^\s,\]}]*/y;
const bracketOrQuote = /["{}[\]]/g;

function matchEnd(pattern: RegExp, text: string, start: number): number {
  pattern.lastIndex = start;
  pattern.exec(text);
  return pattern.lastIndex;
}
