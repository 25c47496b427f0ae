/**
 * Groups items by a key.
 *
 * @param key returns the key of an item
 * @returns the items by key, keys and items in order of appearance
 */
export function groupedBy<T, K extends string>(items: Iterable<T>, key: (item: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>();
  for (const item of items) {
    const name = key(item);
    const known = groups.get(name);
    if (known) known.push(item);
    else groups.set(name, [item]);
  }
  return groups;
}
