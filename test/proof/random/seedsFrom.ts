/** Seeds in a row. */
export function seedsFrom(first: number, count: number): number[] {
  return Array.from({ length: count }, (_, index) => first + index);
}
