import type { ValueSpan } from "./valueSpan.js";

/**
 * Finds values in a JSON text (RFC 8259) that is valid. Only the objects and lists on the way to a value are looked
 * into, each once: a tree of all of a large text takes a hundred times its size.
 */
export class JsonSpans {
  private readonly inside = new Map<number, ReadonlyMap<string, ValueSpan>>();
  /** Where long objects and lists end, by where they begin: one in the other, they would be read once a level. */
  private readonly ends = new Map<number, number>();
  private whole: ValueSpan | undefined;

  /** @param text valid JSON */
  constructor(private readonly text: string) {}

  /** The value at the end of a path of keys and indices, or the deepest one on the way that exists. */
  find(path: readonly string[]): ValueSpan {
    let found = (this.whole ??= this.value(this.afterSpace(0)));
    for (const token of path) {
      const next = found.isContainer ? this.members(found.start).get(token) : undefined;
      if (!next) break;
      found = next;
    }
    return found;
  }

  /** What stands in an object by its key, the last one of several alike; in a list by its index. */
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

  /** @param start of the quote that begins a string */
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

/** Shorter ones are read again in no time. */
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
