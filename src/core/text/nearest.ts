const maxSuggestions = 5;

/**
 * Returns the candidates that are most similar to a word, closest first.
 *
 * @param written the word of the user
 * @param candidates the valid words
 * @returns at most five, in a stable order
 */
export function nearest(written: string, candidates: Iterable<string>): string[] {
  const limit = Math.max(1, Math.floor(written.length * 0.4));
  const scored: { candidate: string; distance: number }[] = [];
  for (const candidate of new Set(candidates)) {
    const distance = editDistance(written.toLowerCase(), candidate.toLowerCase(), limit);
    if (distance <= limit) scored.push({ candidate, distance });
  }
  scored.sort((a, b) => a.distance - b.distance || (a.candidate < b.candidate ? -1 : 1));
  return scored.slice(0, maxSuggestions).map((each) => each.candidate);
}

/**
 * Returns "Did you mean …?" for the closest candidates, or undefined if none is close.
 *
 * @param written the word of the user
 * @param candidates the valid words
 */
export function didYouMean(written: string, candidates: Iterable<string>): string | undefined {
  const found = nearest(written, candidates).map((each) => `\`${each}\``);
  if (found.length === 0) return undefined;
  const last = found.pop() ?? "";
  return `Did you mean ${found.length > 0 ? `${found.join(", ")} or ${last}` : last}?`;
}

/** Damerau-Levenshtein distance (adjacent swaps count once). It stops above the limit. */
function editDistance(a: string, b: string, limit: number): number {
  if (Math.abs(a.length - b.length) > limit) return limit + 1;
  let before: number[] = [];
  let last = Array.from({ length: b.length + 1 }, (_, at) => at);
  for (let i = 1; i <= a.length; i++) {
    const row = [i];
    for (let j = 1; j <= b.length; j++) {
      const cost = a[i - 1] === b[j - 1] ? 0 : 1;
      let best = Math.min((last[j] ?? 0) + 1, (row[j - 1] ?? 0) + 1, (last[j - 1] ?? 0) + cost);
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
        best = Math.min(best, (before[j - 2] ?? 0) + 1);
      row.push(best);
    }
    before = last;
    last = row;
  }
  return last[b.length] ?? limit + 1;
}
