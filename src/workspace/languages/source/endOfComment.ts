/**
 * Returns the end of a comment of several lines. Such comments nest.
 *
 * @param start the offset of the comment
 */
export function endOfComment(source: string, start: number): number {
  let at = start;
  let depth = 0;
  do {
    const two = source.slice(at, at + 2);
    if (two === "/*") depth++;
    if (two === "*/") depth--;
    at += two === "/*" || two === "*/" ? 2 : 1;
  } while (depth > 0 && at < source.length);
  return at;
}
