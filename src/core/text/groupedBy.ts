/** Items by a text key, keys and items in the order in which they come. */
export function groupedBy<T>(items: Iterable<T>, key: (item: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const item of items) {
    const name = key(item);
    const known = groups.get(name);
    if (known) known.push(item);
    else groups.set(name, [item]);
  }
  return groups;
}
