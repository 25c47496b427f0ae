/** Collects the values of an option that can be given more than once. */
export function collected(value: string, before: readonly string[]): string[] {
  return [...before, value];
}
