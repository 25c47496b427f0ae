/** A part of a module that is the same in the source. */
interface Segment {
  /** Its start in the module. */
  readonly at: number;
  /** Its start in the source. */
  readonly from: number;
  readonly length: number;
  /** Its length in the source. */
  readonly span: number;
}

/** A module written from a component: parts of its source, with code around them for their types. */
export class MappedText {
  private readonly parts: string[] = [];
  private readonly segments: Segment[] = [];
  private length = 0;

  constructor(private readonly source: string) {}

  /** Adds code that is not in the source. */
  write(text: string): this {
    this.parts.push(text);
    this.length += text.length;
    return this;
  }

  /** Adds a part of the source, from one offset to before another. */
  take(start: number, end: number): this {
    if (end <= start) return this;
    return this.stand(this.source.slice(start, end), start, end);
  }

  /** Adds code in place of a part of the source. */
  stand(text: string, start: number, end: number): this {
    this.segments.push({ at: this.length, from: start, length: text.length, span: end - start });
    return this.write(text);
  }

  /** Adds the content of another one of the same source. */
  append(other: MappedText): this {
    for (const segment of other.segments) this.segments.push({ ...segment, at: this.length + segment.at });
    return this.write(other.text);
  }

  get text(): string {
    return this.parts.join("");
  }

  /** Returns the source offset of a module offset; undefined in added code. */
  sourceOffset(at: number): number | undefined {
    const segment = this.before(at);
    return segment && at < segment.at + segment.length
      ? segment.from + Math.min(at - segment.at, segment.span - 1)
      : undefined;
  }

  /** Returns the module offset of a source offset; undefined if the module does not contain it. */
  moduleOffset(from: number): number | undefined {
    const segment = this.segments.find((each) => each.from <= from && from < each.from + each.span);
    return segment && segment.at + Math.min(from - segment.from, segment.length - 1);
  }

  /** Returns the source range of a part of the module, from its first place to its last; undefined if it has none. */
  sourceRange(start: number, end: number): [number, number] | undefined {
    const held = this.segments.filter(({ at, length }) => at < end && start < at + length);
    const [first] = held;
    const last = held.at(-1);
    if (!first || !last) return undefined;
    const from = this.sourceOffset(Math.max(start, first.at));
    const to = this.sourceOffset(Math.min(end, last.at + last.length) - 1);
    return from === undefined || to === undefined ? undefined : [from, Math.max(from, to) + 1];
  }

  /** The last segment that begins at or before an offset. */
  private before(at: number): Segment | undefined {
    let low = 0;
    let high = this.segments.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((this.segments[middle]?.at ?? Infinity) <= at) low = middle + 1;
      else high = middle;
    }
    return this.segments[low - 1];
  }
}
