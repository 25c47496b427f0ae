/** The number of texts after which a function forgets all of them, so that memory stays bounded. */
const most = 20_000;

/**
 * Returns a function that computes its result only once for the same text. Contracts repeat the names of fields and
 * values thousands of times.
 *
 * @param compute depends on the text alone
 */
export function remembered(compute: (text: string) => string): (text: string) => string {
  const known = new Map<string, string>();
  return (text) => {
    const found = known.get(text);
    if (found !== undefined) return found;
    const made = compute(text);
    if (known.size >= most) known.clear();
    known.set(text, made);
    return made;
  };
}
