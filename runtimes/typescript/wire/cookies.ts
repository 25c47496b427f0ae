/** The cookie header for pairs that are already encoded; undefined when there are none. Browsers fill it themselves. */
export function cookies(pairs: readonly (string | undefined)[]): string | undefined {
  const given = pairs.filter((pair) => pair !== undefined && pair !== "");
  return given.length === 0 ? undefined : given.join("; ");
}
