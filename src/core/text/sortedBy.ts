/** Compares by code unit, so that order never depends on a locale. */
export function byCodeUnit(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0;
}

/** A new array sorted by a text key, in code-unit order. */
export function sortedBy<T>(items: Iterable<T>, key: (item: T) => string): T[] {
  const keyed = Array.from(items, (item) => ({ item, key: key(item) }));
  keyed.sort((a, b) => byCodeUnit(a.key, b.key));
  return keyed.map(({ item }) => item);
}
