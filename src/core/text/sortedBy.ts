/** Compares by code unit, so that order never depends on a locale. */
export function byCodeUnit(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0;
}

/** A new array sorted by a text key, in code-unit order. */
export function sortedBy<T>(items: Iterable<T>, key: (item: T) => string): T[] {
  return [...items].sort((a, b) => byCodeUnit(key(a), key(b)));
}
