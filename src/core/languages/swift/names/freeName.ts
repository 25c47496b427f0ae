/**
 * Returns a name for a variable of ours that differs from names of a contract or an app.
 *
 * @param taken the names in the same function
 */
export function freeName(wanted: string, taken: readonly string[]): string {
  let name = wanted;
  while (taken.includes(name)) name += "Here";
  return name;
}
