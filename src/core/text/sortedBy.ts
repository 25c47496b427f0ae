/** Compares by code unit, so that order never depends on a locale. */
export function byCodeUnit(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0;
}

/** A new array sorted by a text key, in code-unit order. */
export function sortedBy<T>(items: Iterable<T>, key: (item: T) => string): T[] {
  const list = Array.from(items);
  const keys = list.map((item) => key(item));
  // What is in order already is common, and needs no sorting.
  if (keys.every((each, at) => at === 0 || (keys[at - 1] ?? "") <= each)) return list;
  const keyed = list.map((item, at) => ({ item, key: keys[at] ?? "" }));
  return keyed.sort((a, b) => byCodeUnit(a.key, b.key)).map(({ item }) => item);
}
