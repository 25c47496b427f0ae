/** Lines further in; empty ones stay empty. */
export function indented(text: string, by = "  "): string {
  // A large contract has a million lines, and the end of a line is found faster than its beginning.
  return (/^./.test(text) ? by : "") + text.replace(/\n(?=[^\n])/g, `\n${by}`);
}
