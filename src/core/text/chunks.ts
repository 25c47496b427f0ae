/** Items in groups of at most `size`, in their order. */
export function chunks<T>(items: readonly T[], size: number): T[][] {
  const found: T[][] = [];
  for (let from = 0; from < items.length; from += size) found.push(items.slice(from, from + size));
  return found;
}
