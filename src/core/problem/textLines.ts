/** One-based line and column of a place, and how many characters it spans (at least 1). */
export interface Position {
  readonly line: number;
  readonly column: number;
  readonly length: number;
}

const mostTextsKept = 4;
const startsByText = new Map<string, readonly number[]>();

/** Offsets at which lines begin; found once for a text, because a large one is asked for many places. */
function lineStarts(text: string): readonly number[] {
  const known = startsByText.get(text);
  if (known) return known;
  const starts = [0];
  for (let at = text.indexOf("\n"); at !== -1; at = text.indexOf("\n", at + 1)) starts.push(at + 1);
  if (startsByText.size >= mostTextsKept) startsByText.clear();
  startsByText.set(text, starts);
  return starts;
}

/** Line and column of a character offset. */
export function positionAt(text: string, offset: number, length = 1): Position {
  const end = Math.min(offset, text.length);
  const starts = lineStarts(text);
  // The last line that begins at the offset or before it.
  let [low, high] = [0, starts.length - 1];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if ((starts[middle] ?? 0) <= end) low = middle;
    else high = middle - 1;
  }
  return { line: low + 1, column: end - (starts[low] ?? 0) + 1, length: Math.max(1, length) };
}

/** A line by its one-based number, without its end; "" beyond the last. */
export function lineOf(text: string, line: number): string {
  const starts = lineStarts(text);
  const start = starts[line - 1];
  if (start === undefined) return "";
  const end = (starts[line] ?? text.length + 1) - 1;
  // Looked at, not searched for: a whole contract may stand on one line.
  return text.slice(start, text.charAt(end - 1) === "\r" ? end - 1 : end);
}
