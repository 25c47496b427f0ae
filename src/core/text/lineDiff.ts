/** One line of a comparison: in both texts, only in the first, or only in the second. */
export interface DiffLine {
  readonly kind: "same" | "gone" | "new";
  readonly text: string;
}

/**
 * Compares two texts line by line, by their longest common subsequence of lines. It is meant for texts of some hundred
 * lines.
 *
 * @param before the first text
 * @param after the second text
 */
export function lineDiff(before: string, after: string): DiffLine[] {
  const left = linesOf(before);
  const right = linesOf(after);
  // common[i][j]: the number of common lines in the rests from i and j.
  const common = Array.from({ length: left.length + 1 }, () => new Array<number>(right.length + 1).fill(0));
  const at = (i: number, j: number): number => common[i]?.[j] ?? 0;
  for (let i = left.length - 1; i >= 0; i--)
    for (let j = right.length - 1; j >= 0; j--)
      (common[i] ?? [])[j] = left[i] === right[j] ? at(i + 1, j + 1) + 1 : Math.max(at(i + 1, j), at(i, j + 1));
  const lines: DiffLine[] = [];
  let [i, j] = [0, 0];
  while (i < left.length || j < right.length) {
    if (i < left.length && j < right.length && left[i] === right[j]) {
      lines.push({ kind: "same", text: left[i++] ?? "" });
      j++;
    } else if (j >= right.length || (i < left.length && at(i + 1, j) >= at(i, j + 1)))
      lines.push({ kind: "gone", text: left[i++] ?? "" });
    else lines.push({ kind: "new", text: right[j++] ?? "" });
  }
  return lines;
}

function linesOf(text: string): string[] {
  return text.replace(/\n$/, "").split("\n");
}
