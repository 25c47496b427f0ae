/**
 * Returns items as a part of a sentence: "a, b and c".
 *
 * @param most the largest number of items; the rest is a number, "a, b and 7 more"
 */
export function listed(items: readonly string[], most = Infinity): string {
  const shown = items.length > most ? items.slice(0, most - 1) : items.slice(0, -1);
  const last = items.length > most ? `${String(items.length - shown.length)} more` : (items.at(-1) ?? "");
  return shown.length === 0 ? last : `${shown.join(", ")} and ${last}`;
}
