/** A generator of numbers, the same ones for the same seed (mulberry32). */
export class Randomness {
  /** How often each feature occurred. */
  readonly occurred = new Map<string, number>();

  constructor(private state: number) {}

  /** From 0 to just below 1. */
  next(): number {
    this.state = (this.state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  }

  /** An integer from 0 to just below the limit. */
  below(limit: number): number {
    return Math.floor(this.next() * limit);
  }

  chance(probability: number): boolean {
    return this.next() < probability;
  }

  pick<T>(items: readonly T[]): T {
    const item = items[this.below(items.length)];
    if (item === undefined) throw new Error("There is nothing to pick from.");
    return item;
  }

  /** Counts a feature, and returns the given value. */
  hit<T>(feature: string, value: T): T {
    this.occurred.set(feature, (this.occurred.get(feature) ?? 0) + 1);
    return value;
  }
}
