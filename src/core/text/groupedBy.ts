/** Items by a text key, keys and items in the order in which they come. */
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
