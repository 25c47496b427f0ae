/**
 * Splits items into groups, in order.
 *
 * @param size the largest number of items in a group
 */
export function chunks<T>(items: readonly T[], size: number): T[][] {
  const found: T[][] = [];
  for (let from = 0; from < items.length; from += size) found.push(items.slice(from, from + size));
  return found;
}
