import type { Constraints } from "../contract/model.js";
import { member, type Data } from "../text/parseData.js";

const numeric = ["minimum", "maximum", "multipleOf", "minLength", "maxLength", "minItems", "maxItems"] as const;
const exclusive = [
  ["exclusiveMinimum", "minimum"],
  ["exclusiveMaximum", "maximum"],
] as const;

/** The range, length and pattern keywords of a schema; undefined when there are none. */
export function readConstraints(schema: Data): { constraints?: Constraints } {
  const found: { -readonly [K in keyof Constraints]: Constraints[K] | undefined } = {};
  for (const key of numeric) {
    const value = member(schema, key);
    if (typeof value === "number") found[key] = value;
  }
  for (const [key, bound] of exclusive) {
    const value = member(schema, key);
    if (typeof value === "number") found[key] = value;
    // OpenAPI 3.0: a boolean that makes the bound beside it exclusive.
    if (value === true && found[bound] !== undefined) {
      found[key] = found[bound];
      found[bound] = undefined;
    }
  }
  const pattern = member(schema, "pattern");
  if (typeof pattern === "string") found.pattern = pattern;
  if (member(schema, "uniqueItems") === true) found.uniqueItems = true;
  const said = Object.entries(found).filter(([, value]) => value !== undefined);
  return said.length > 0 ? { constraints: Object.fromEntries(said) } : {};
}
