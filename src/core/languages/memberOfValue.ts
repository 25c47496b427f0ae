import type { Reference, UnionShape } from "../contract/model.js";
import { resolveShape } from "../contract/resolveShape.js";
import type { PlannedType } from "../sdk/sdkPlan.js";
import { isData } from "../text/parseData.js";
import { valueText } from "./valueText.js";

type Types = ReadonlyMap<string, PlannedType>;

/**
 * Returns the union member of a value; undefined if it has none.
 *
 * @param value data from JSON
 */
export function memberOfValue(value: unknown, union: UnionShape, types: Types): Reference | undefined {
  return union.members.find((member, at) => {
    const { tag } = union;
    if (!tag) return fits(value, member, types);
    return isData(value) && tag.values[at]?.includes(valueText(value[tag.field])) === true;
  });
}

function fits(value: unknown, member: Reference, types: Types): boolean {
  const shape = resolveShape(member.shape, types);
  switch (shape.kind) {
    case "record":
      return isData(value) && shape.fields.every(({ name, required }) => !required || Object.hasOwn(value, name));
    case "map":
      return isData(value);
    case "list":
    case "tuple":
      return Array.isArray(value);
    case "integer":
    case "number":
      return typeof value === "number";
    case "boolean":
      return typeof value === "boolean";
    case "literal":
      return value === shape.value;
    case "any":
      return true;
    default:
      return typeof value === "string";
  }
}
