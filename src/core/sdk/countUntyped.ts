import type { Reference } from "../contract/model.js";
import { shapeFacts } from "../contract/shapeFacts.js";
import type { PlannedType } from "./sdkPlan.js";

/** How many places of a plan the contract says nothing about; each is `unknown` in the SDK. */
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
