/**
 * Splits a name of any spelling into words: at everything that is neither letter nor digit, and where a lower-case
 * letter meets an upper-case one. "listForGroup", "list-for_group" and "thing/list for.group" all come apart.
 */
export function words(name: string): string[] {
  // Most names are one plain word.
  if (/^[a-z]+\d*$/.test(name)) return [name];
  return name
    .normalize("NFC")
    .replace(/([\p{Ll}\p{Nd}])(\p{Lu})/gu, "$1 $2")
    .replace(/(\p{Lu})(\p{Lu}\p{Ll})/gu, "$1 $2")
    .split(/[^\p{L}\p{Nd}\p{M}]+/u)
    .filter((word) => word !== "");
}

/** Words joined with each one capitalised. */
export function pascalCase(name: string): string {
  return words(name)
    .map((word) => word.charAt(0).toUpperCase() + word.slice(1))
    .join("");
}

/** Like `pascalCase`, with the first word in lower case. */
export function camelCase(name: string): string {
  const [first = "", ...rest] = words(name);
  const head = first === first.toUpperCase() ? first.toLowerCase() : first.charAt(0).toLowerCase() + first.slice(1);
  return head + rest.map((word) => word.charAt(0).toUpperCase() + word.slice(1)).join("");
}

/** Lower-case ASCII words joined with hyphens; "" when nothing is left. */
export function kebabCase(name: string): string {
  return words(name)
    .map((word) =>
      word
        .normalize("NFKD")
        .replace(/[^A-Za-z0-9]/g, "")
        .toLowerCase(),
    )
    .filter((word) => word !== "")
    .join("-");
}

/** Whether two names have a word in common, whatever its case. */
export function sharesWord(a: string, b: string): boolean {
  const known = new Set(words(a).map((word) => word.toLowerCase()));
  return words(b).some((word) => known.has(word.toLowerCase()));
}
