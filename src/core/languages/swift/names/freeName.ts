/**
 * A name of ours inside a function, out of the way of names that a contract or an app gives.
 *
 * @param taken what it would hide, or be hidden by
 */
export function freeName(wanted: string, taken: readonly string[]): string {
  let name = wanted;
  while (taken.includes(name)) name += "Here";
  return name;
}
