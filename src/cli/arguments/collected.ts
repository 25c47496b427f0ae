/**
 * Collects the values of an option that can be given more than once.
 *
 * @param before the values so far
 */
export function collected(value: string, before: readonly string[]): string[] {
  return [...before, value];
}
