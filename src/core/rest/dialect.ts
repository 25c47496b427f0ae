/** The version of a REST contract's format, as far as versions differ in meaning. */
export type Dialect = "2.0" | "3.0" | "3.1" | "3.2";

/**
 * Returns the dialect for the version that a document gives; undefined for an unknown version.
 *
 * @param said the value of `openapi` or `swagger`
 */
export function dialectOf(said: string): Dialect | undefined {
  if (/^2(\.0)*$/.test(said)) return "2.0";
  const minor = /^3\.([0-2])(\.|$|-)/.exec(said)?.[1];
  return minor === undefined ? undefined : (`3.${minor}` as Dialect);
}

/** Returns the JSON pointer under which a dialect keeps its named schemas. */
export function schemasPointer(dialect: Dialect): string {
  return dialect === "2.0" ? "/definitions" : "/components/schemas";
}
