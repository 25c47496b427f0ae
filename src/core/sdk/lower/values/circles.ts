/**
 * Finds circles, in time that grows with the number of steps: the strongly connected components of a graph (R. Tarjan,
 * "Depth-first search and linear graph algorithms", 1972). It has no recursion, because contracts have chains of any
 * length.
 *
 * @param keys all nodes of the graph
 * @param stepsFrom returns the targets of one step
 * @returns a function: whether there is a way from one node to another and back. Every node has one to itself
 */
export function circles(
  keys: Iterable<string>,
  stepsFrom: (key: string) => readonly string[],
): (one: string, other: string) => boolean {
  const circleOf = new Map<string, number>();
  const lowest = new Map<string, number>();
  const open: string[] = [];
  interface Visit {
    readonly key: string;
    readonly place: number;
    readonly steps: readonly string[];
    /** The number of steps that were taken. */
    taken: number;
  }
  const visits: Visit[] = [];
  const visit = (key: string): void => {
    const place = lowest.size;
    lowest.set(key, place);
    open.push(key);
    visits.push({ key, place, steps: stepsFrom(key), taken: 0 });
  };
  const lower = (key: string, to: number): void => {
    lowest.set(key, Math.min(lowest.get(key) ?? to, to));
  };
  for (const start of keys) {
    if (!lowest.has(start)) visit(start);
    for (let current = visits.at(-1); current; current = visits.at(-1)) {
      const step = current.steps[current.taken++];
      if (step !== undefined) {
        const known = lowest.get(step);
        if (known === undefined) visit(step);
        else if (!circleOf.has(step)) lower(current.key, known);
        continue;
      }
      visits.pop();
      const found = lowest.get(current.key) ?? current.place;
      const before = visits.at(-1);
      if (before) lower(before.key, found);
      if (found !== current.place) continue;
      for (const key of open.splice(open.lastIndexOf(current.key))) circleOf.set(key, current.place);
    }
  }
  return (one, other) => one === other || (circleOf.has(one) && circleOf.get(one) === circleOf.get(other));
}
