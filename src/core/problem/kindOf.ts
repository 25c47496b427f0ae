/**
 * Returns the type of a value in words, for a message.
 *
 * @param value data from JSON or YAML
 */
export function kindOf(value: unknown): string {
  if (value === null) return "null";
  if (value === undefined) return "missing";
  if (Array.isArray(value)) return "a list";
  if (typeof value === "object") return "an object";
  if (typeof value === "string") return `the string ${JSON.stringify(value.slice(0, 40))}`;
  return `the ${typeof value} ${JSON.stringify(value)}`;
}
