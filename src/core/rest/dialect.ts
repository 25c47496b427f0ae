/** The version of a REST contract's format, as far as its meaning differs. */
export type Dialect = "2.0" | "3.0" | "3.1" | "3.2";

/** The dialect behind what a document says about itself; undefined for a version nobody knows. */
export function dialectOf(said: string): Dialect | undefined {
  if (/^2(\.0)*$/.test(said)) return "2.0";
  const minor = /^3\.([0-2])(\.|$|-)/.exec(said)?.[1];
  return minor === undefined ? undefined : (`3.${minor}` as Dialect);
}

/** Where a dialect keeps its named schemas. */
export function schemasPointer(dialect: Dialect): string {
  return dialect === "2.0" ? "/definitions" : "/components/schemas";
}
