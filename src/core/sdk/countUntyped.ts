import type { Reference } from "../contract/model.js";
import { shapeFacts } from "../contract/shapeFacts.js";
import type { PlannedType } from "./sdkPlan.js";

/**
 * Returns the number of places in a plan without a type in the contract. Each is `unknown` in the SDK.
 *
 * @param roots the types of calls
 * @param mappedScalars custom scalars with a configured type
 */
export function countUntyped(
  types: Iterable<PlannedType>,
  roots: Iterable<Reference>,
  mappedScalars: ReadonlySet<string>,
): number {
  let count = 0;
  for (const part of [types, roots]) {
    for (const { shape } of part) {
      const { untyped, scalars } = shapeFacts(shape);
      count += untyped;
      for (const scalar of scalars) if (!mappedScalars.has(scalar)) count++;
    }
  }
  return count;
}
