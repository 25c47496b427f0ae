/** Where a comment of several lines ends that begins at a place; such comments nest. */
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
