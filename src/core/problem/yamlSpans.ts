import { load, type EventType, type State } from "js-yaml";
import { yamlOptions } from "../text/parseData.js";
import type { ValueSpan } from "./valueSpan.js";

/** Closed: a collection with fewer events than nodes, so that its nodes cannot be identified. */
const kinds = { scalar: 1, mapping: 2, sequence: 3, closed: 4 } as const;

/**
 * Finds values in a YAML text. The parser's events are stored as numbers, in the order of the text. A tree of a large
 * text takes many times the memory and the time.
 */
export class YamlSpans {
  private readonly starts: number[] = [];
  private readonly ends: number[] = [];
  private readonly kinds: number[] = [];
  /** The index after the last node inside each node. */
  private readonly afters: number[] = [];

  /** @throws YAMLException if the text is not valid */
  constructor(private readonly text: string) {
    const open: number[] = [];
    load(text, {
      ...yamlOptions,
      listener: (event: EventType, { position, kind, result }: State) => {
        if (event === "open") {
          open.push(this.starts.length);
          this.starts.push(position);
          this.ends.push(position);
          this.kinds.push(0);
          this.afters.push(0);
          return;
        }
        const at = open.pop();
        if (at === undefined) return;
        this.ends[at] = position;
        this.afters[at] = this.starts.length;
        this.kinds[at] = this.kindOf(at, kind, result);
      },
    });
  }

  private kindOf(node: number, kind: string | null, result: unknown): number {
    if (kind !== "mapping" && kind !== "sequence") return kinds.scalar;
    // The parser reports neither an item that is only a dash nor the missing value of a key.
    const told = this.children(this.unwrapped(node, kinds[kind])).length;
    const isWhole = kind === "sequence" ? Array.isArray(result) && result.length === told : told % 2 === 0;
    return isWhole ? kinds[kind] : kinds.closed;
  }

  /** Returns the value at the end of a path of keys and indices, or the deepest existing one on the way. */
  find(path: readonly string[]): ValueSpan {
    // The text is empty or contains only comments.
    if (this.contentStart(0) >= this.text.length) return { start: 0, end: 0, isContainer: false };
    let node = this.unwrapped(0);
    let found = this.span(node);
    for (const token of path) {
      const inside = this.children(node);
      let key: number | undefined;
      let value: number | undefined;
      if (this.kinds[node] === kinds.sequence) value = inside[Number(token)];
      else if (this.kinds[node] === kinds.mapping) {
        // Of repeated keys, the last one counts.
        for (let at = 0; at < inside.length; at += 2)
          if (this.keyText(inside[at] ?? 0) === token) [key, value] = [inside[at], inside[at + 1] ?? inside[at]];
      }
      if (value === undefined) break;
      node = this.unwrapped(value);
      found = this.span(node);
      if (key !== undefined) {
        const { start, end } = this.span(key);
        found = { ...found, key: [start, end] };
      }
    }
    return found;
  }

  private children(node: number): number[] {
    const found: number[] = [];
    const after = this.afters[node] ?? 0;
    for (let at = node + 1; at < after; at = this.afters[at] ?? after) found.push(at);
    return found;
  }

  /**
   * The parser first reports a collection as the key of a mapping and then as itself. It is therefore reported twice,
   * one inside the other.
   */
  private unwrapped(node: number, kind = this.kinds[node]): number {
    const first = node + 1;
    const isWrapped =
      first < this.starts.length &&
      kind !== kinds.scalar &&
      (this.kinds[first] === kind || this.kinds[first] === kinds.closed) &&
      this.afters[first] === this.afters[node] &&
      this.ends[first] === this.ends[node] &&
      this.contentStart(first) === this.contentStart(node);
    return isWrapped ? this.unwrapped(first) : node;
  }

  private span(node: number): ValueSpan {
    const end = this.ends[node] ?? 0;
    const content = this.contentStart(node);
    // An empty value has no text of its own, and the space after it belongs to what follows.
    const start = content < end ? content : (this.starts[node] ?? 0);
    let last = content < end ? end : start;
    while (last > start && /\s/.test(this.text.charAt(last - 1))) last--;
    return { start, end: last, isContainer: this.kinds[node] !== kinds.scalar };
  }

  /** Returns the start of a node's text, after the space and the comments before it. */
  private contentStart(node: number): number {
    const start = this.starts[node] ?? 0;
    spaceAndComments.lastIndex = start;
    spaceAndComments.exec(this.text);
    return Math.max(start, spaceAndComments.lastIndex);
  }

  private keyText(node: number): string | undefined {
    const { start, end } = this.span(node);
    const text = this.text.slice(start, end).trim();
    if (/^[\w$/.{}-]/.test(text)) return text;
    const read: unknown = load(text, yamlOptions);
    return typeof read === "string" || typeof read === "number" ? String(read) : undefined;
  }
}

const spaceAndComments = /(?:[ \t\r\n]+|(?:(?<=[ \t\r\n])|^)#[^\n]*)*/y;
