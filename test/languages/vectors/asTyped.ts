import type { Reference, Shape } from "../../../src/core/contract/model.js";
import { resolveShape } from "../../../src/core/contract/resolveShape.js";
import type { PlannedType } from "../../../src/core/sdk/sdkPlan.js";
import type { Data } from "./vectorRow.js";

type Types = ReadonlyMap<string, PlannedType>;
type Fields = Readonly<Record<string, Data>>;

/** Returns the value of a row as far as a type has a place for it, without keys that the contract does not declare. */
export function asTyped(given: Data, reference: Reference | undefined, types: Types): Data {
  const shape = reference && resolveShape(reference.shape, types);
  if (given === null || typeof given !== "object" || !shape) return given;
  if (Array.isArray(given))
    return (given as readonly Data[]).map((each, at) => asTyped(each, itemOf(shape, at), types));
  const fields = given as Fields;
  if (shape.kind !== "record" || shape.rest) return given;
  return Object.fromEntries(
    shape.fields.flatMap(({ name, type }) => {
      const value = fields[name];
      return value === undefined ? [] : [[name, asTyped(value, type, types)]];
    }),
  );
}

/** The type of an item in a list or a tuple. */
export function itemOf(shape: Shape | undefined, at: number): Reference | undefined {
  if (shape?.kind === "list") return shape.item;
  return shape?.kind === "tuple" ? (shape.items[at] ?? shape.rest) : undefined;
}
