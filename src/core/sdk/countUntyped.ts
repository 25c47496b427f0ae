import { pushChildren } from "../contract/childReferences.js";
import type { Reference, Shape } from "../contract/model.js";
import type { PlannedType } from "./sdkPlan.js";

/** How many places of a plan the contract says nothing about; each is `unknown` in the SDK. */
export function countUntyped(
  types: Iterable<PlannedType>,
  roots: Iterable<Reference>,
  mappedScalars: ReadonlySet<string>,
): number {
  let count = 0;
  const open: Shape[] = [...[...types].map((type) => type.shape), ...[...roots].map((root) => root.shape)];
  for (let shape = open.pop(); shape; shape = open.pop()) {
    if (shape.kind === "any" && !(shape.scalar !== undefined && mappedScalars.has(shape.scalar))) count++;
    pushChildren(shape, open);
  }
  return count;
}
