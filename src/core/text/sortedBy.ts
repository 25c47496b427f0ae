/**
 * Compares by code unit, so that the order never depends on a locale.
 *
 * @returns a negative number, 0 or a positive number
 */
export function byCodeUnit(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0;
}

/**
 * Returns a new array, sorted by a text key in code-unit order.
 *
 * @param key returns the key of an item
 */
export function sortedBy<T>(items: Iterable<T>, key: (item: T) => string): T[] {
  const list = Array.from(items);
  const keys = list.map((item) => key(item));
  // Items are often in order already, and then need no sorting.
  if (keys.every((each, at) => at === 0 || (keys[at - 1] ?? "") <= each)) return list;
  const keyed = list.map((item, at) => ({ item, key: keys[at] ?? "" }));
  return keyed.sort((a, b) => byCodeUnit(a.key, b.key)).map(({ item }) => item);
}
