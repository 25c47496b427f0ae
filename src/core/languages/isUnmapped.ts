import type { Shape } from "../contract/model.js";

/** Returns whether a shape is a scalar of a schema without a configured type in the language. */
export function isUnmapped(shape: Shape, scalars: ReadonlyMap<string, string>): boolean {
  return shape.kind === "any" && shape.scalar !== undefined && !scalars.has(shape.scalar);
}
