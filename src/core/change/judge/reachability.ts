/** A bit for each wanted node, set if it can be reached. */
type Bits = Uint32Array;

/**
 * A graph for the question which of some wanted nodes can be reached from a node, asked for many nodes. Nodes that
 * reach each other reach the same ones, so the result is computed once for each strongly connected part, from those of
 * the parts behind it.
 */
export class Reachability {
  private readonly numbers = new Map<string, number>();
  private readonly next: number[][] = [];

  /** Adds a step from one node to another. */
  add(from: string, to: string): void {
    const target = this.numberOf(to);
    this.next[this.numberOf(from)]?.push(target);
  }

  /**
   * Returns the wanted nodes that can be reached.
   *
   * @param wanted nodes, each once
   * @returns a function: the wanted nodes that a node reaches, itself included, in their order
   */
  reaching(wanted: readonly string[]): (node: string) => readonly string[] {
    for (const node of wanted) this.numberOf(node);
    const bits = this.bitsOf(new Map(wanted.map((node, at) => [this.numberOf(node), at])));
    const lists = new Map<Bits, readonly string[]>();
    return (node) => {
      const found = bits[this.numbers.get(node) ?? -1];
      if (!found) return [];
      const known = lists.get(found);
      if (known) return known;
      const list = wanted.filter((_, at) => ((found[at >> 5] ?? 0) >>> (at & 31)) & 1);
      lists.set(found, list);
      return list;
    };
  }

  private numberOf(node: string): number {
    const known = this.numbers.get(node);
    if (known !== undefined) return known;
    this.numbers.set(node, this.next.length);
    return this.next.push([]) - 1;
  }

  /** Tarjan's algorithm, without recursion. A part is finished after all parts behind it. */
  private bitsOf(wanted: ReadonlyMap<number, number>): readonly (Bits | undefined)[] {
    const { next } = this;
    const bits: (Bits | undefined)[] = Array.from({ length: next.length });
    const order = new Int32Array(next.length);
    const lowest = new Int32Array(next.length);
    const walked = new Int32Array(next.length);
    const path: number[] = [];
    const unfinished: number[] = [];
    let entered = 0;
    const enter = (node: number): void => {
      entered += 1;
      order[node] = lowest[node] = entered;
      path.push(node);
      unfinished.push(node);
    };
    const lower = (node: number, other: number): void => {
      lowest[node] = Math.min(lowest[node] ?? 0, other);
    };
    const finish = (node: number): void => {
      const part = unfinished.splice(unfinished.lastIndexOf(node));
      const whole = new Uint32Array((wanted.size + 31) >> 5);
      for (const member of part) {
        const at = wanted.get(member);
        if (at !== undefined) whole[at >> 5] = (whole[at >> 5] ?? 0) | (1 << (at & 31));
        for (const target of next[member] ?? [])
          bits[target]?.forEach((word, index) => (whole[index] = (whole[index] ?? 0) | word));
      }
      for (const member of part) bits[member] = whole;
    };
    for (let root = 0; root < next.length; root++) {
      if (order[root] === 0) enter(root);
      for (let node = path.at(-1); node !== undefined; node = path.at(-1)) {
        const target = next[node]?.[walked[node] ?? 0];
        if (target !== undefined) {
          walked[node] = (walked[node] ?? 0) + 1;
          if (order[target] === 0) enter(target);
          else if (!bits[target]) lower(node, order[target] ?? 0);
          continue;
        }
        path.pop();
        if (lowest[node] === order[node]) finish(node);
        const before = path.at(-1);
        if (before !== undefined && !bits[node]) lower(before, lowest[node] ?? 0);
      }
    }
    return bits;
  }
}
