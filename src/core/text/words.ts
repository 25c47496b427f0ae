/**
 * Splits a name of any spelling into words, at all characters that are neither letters nor digits, and where an
 * upper-case letter follows a lower-case one. "listForGroup", "list-for_group" and "thing/list for.group" are all
 * split.
 *
 * @param name a name of a contract
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

/** Returns the words of a name joined, each with a capital letter. */
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

/** Returns the words of a name in lower-case ASCII, joined with hyphens; "" if nothing is left. */
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

/** Returns whether two names have a word in common, in any case. */
export function sharesWord(a: string, b: string): boolean {
  const known = new Set(words(a).map((word) => word.toLowerCase()));
  return words(b).some((word) => known.has(word.toLowerCase()));
}
