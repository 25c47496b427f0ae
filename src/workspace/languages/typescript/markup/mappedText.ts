/** A part of a module that stands in the source as it is. */
interface Segment {
  /** Where it begins in the module. */
  readonly at: number;
  /** Where it begins in the source. */
  readonly from: number;
  readonly length: number;
  /** How much of the source it is. */
  readonly span: number;
}

/** A module written from a component: parts of its source, and code around them that makes their types known. */
export class MappedText {
  private readonly parts: string[] = [];
  private readonly segments: Segment[] = [];
  private length = 0;

  constructor(private readonly source: string) {}

  /** Code that stands nowhere in the source. */
  write(text: string): this {
    this.parts.push(text);
    this.length += text.length;
    return this;
  }

  /** A part of the source, from one offset to before another. */
  take(start: number, end: number): this {
    if (end <= start) return this;
    return this.stand(this.source.slice(start, end), start, end);
  }

  /** Code that stands for a part of the source. */
  stand(text: string, start: number, end: number): this {
    this.segments.push({ at: this.length, from: start, length: text.length, span: end - start });
    return this.write(text);
  }

  /** Everything that another one of the same source holds. */
  append(other: MappedText): this {
    for (const segment of other.segments) this.segments.push({ ...segment, at: this.length + segment.at });
    return this.write(other.text);
  }

  get text(): string {
    return this.parts.join("");
  }

  /** Where an offset of the module stands in the source; undefined in code that does not. */
  sourceOffset(at: number): number | undefined {
    const segment = this.before(at);
    return segment && at < segment.at + segment.length
      ? segment.from + Math.min(at - segment.at, segment.span - 1)
      : undefined;
  }

  /** Where an offset of the source stands in the module; undefined for what is not part of it. */
  moduleOffset(from: number): number | undefined {
    const segment = this.segments.find((each) => each.from <= from && from < each.from + each.span);
    return segment && segment.at + Math.min(from - segment.from, segment.length - 1);
  }

  /** What of the source a part of the module holds, from its first place to its last; undefined where it holds nothing. */
  sourceRange(start: number, end: number): [number, number] | undefined {
    const held = this.segments.filter(({ at, length }) => at < end && start < at + length);
    const [first] = held;
    const last = held.at(-1);
    if (!first || !last) return undefined;
    const from = this.sourceOffset(Math.max(start, first.at));
    const to = this.sourceOffset(Math.min(end, last.at + last.length) - 1);
    return from === undefined || to === undefined ? undefined : [from, Math.max(from, to) + 1];
  }

  /** The last segment that begins at an offset or before it. */
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
