import type { Reader } from "./reader.js";
import type { TypeText } from "./typeText.js";

/**
 * Reads types between `<` and `>`.
 *
 * @param readType reads one type in the language
 * @returns undefined if this is a comparison; then nothing is skipped
 */
export function typeArguments(
  reader: Reader,
  readType: (reader: Reader) => TypeText | undefined,
): (TypeText | undefined)[] | undefined {
  const before = reader.at;
  if (!reader.takes("<")) return undefined;
  const found: (TypeText | undefined)[] = [];
  while (!reader.is(">")) {
    const start = reader.at;
    found.push(readType(reader));
    if (reader.at === start || (!reader.takes(",") && !reader.is(">"))) {
      reader.at = before;
      return undefined;
    }
  }
  reader.next();
  return found;
}

/** Reads the names of type parameters, if there are some. @param words the words that may come before such a name */
export function typeParameters(reader: Reader, words: readonly string[]): string[] {
  if (!reader.takes("<")) return [];
  const found: string[] = [];
  let depth = 1;
  let isFirst = true;
  while (depth > 0 && !reader.isAtEnd) {
    const { kind, text } = reader.next();
    if (text === "<") depth++;
    else if (text === ">") depth--;
    else if (depth === 1 && text === ",") isFirst = true;
    else if (isFirst && kind === "name" && !words.includes(text)) {
      found.push(text);
      isFirst = false;
    }
  }
  return found;
}

/**
 * Reads the bounds of type parameters, `T: Named` each, as after `<` or `where`. Of several bounds the first one counts.
 *
 * @param words the words that may come before such a name
 * @param into extended in place: the bounds by the names of the type parameters
 */
export function typeBounds(
  reader: Reader,
  {
    words,
    readType,
  }: { readonly words: readonly string[]; readonly readType: (reader: Reader) => TypeText | undefined },
  into: Map<string, TypeText>,
): void {
  while (!reader.isAtEnd) {
    const { kind, text } = reader.next();
    if (kind !== "name" || words.includes(text)) continue;
    const type = reader.takes(":") ? readType(reader) : undefined;
    if (type && !into.has(text)) into.set(text, type);
    while (reader.token.kind !== "end" && !reader.takes(",")) reader.next();
  }
}
