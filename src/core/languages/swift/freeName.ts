/**
 * A name of ours inside a function, out of the way of names that a contract or an app gives.
 *
 * @param taken what it would hide, or be hidden by
 */
export function freeName(wanted: string, taken: Iterable<string>): string {
  const all = new Set(taken);
  let name = wanted;
  while (all.has(name)) name += "Here";
  return name;
}
