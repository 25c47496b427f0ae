import type { Constraints } from "../../contract/model.js";
import { member, type Data } from "../../text/parseData.js";

/** The keywords that limit each type. The others have no effect on it (JSON Schema validation, section 6). */
const limitsByKind = {
  text: ["minLength", "maxLength"],
  number: ["minimum", "maximum", "multipleOf"],
  list: ["minItems", "maxItems"],
} as const;

const exclusive = [
  ["exclusiveMinimum", "minimum"],
  ["exclusiveMaximum", "maximum"],
] as const;

/**
 * Reads the range, length and pattern keywords of a schema.
 *
 * @returns an empty object if there are none
 */
export function readConstraints(schema: Data, kind: keyof typeof limitsByKind): { constraints?: Constraints } {
  const found: { -readonly [K in keyof Constraints]: Constraints[K] | undefined } = {};
  for (const key of limitsByKind[kind]) {
    const value = member(schema, key);
    if (typeof value === "number") found[key] = value;
  }
  for (const [key, bound] of kind === "number" ? exclusive : []) {
    const value = member(schema, key);
    if (typeof value === "number") found[key] = value;
    // OpenAPI 3.0: a boolean that makes the bound next to it exclusive.
    if (value === true && found[bound] !== undefined) {
      found[key] = found[bound];
      found[bound] = undefined;
    }
  }
  const pattern = kind === "text" ? member(schema, "pattern") : undefined;
  if (typeof pattern === "string") found.pattern = pattern;
  if (kind === "list" && member(schema, "uniqueItems") === true) found.uniqueItems = true;
  if (isEmpty(found)) return {};
  const said = Object.entries(found).filter(([, value]) => value !== undefined);
  return said.length > 0 ? { constraints: Object.fromEntries(said) } : {};
}

function isEmpty(found: object): boolean {
  for (const _key in found) return false;
  return true;
}
