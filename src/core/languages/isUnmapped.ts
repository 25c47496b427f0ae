import type { Shape } from "../contract/model.js";

/** Whether a shape is a scalar of a schema for which the configuration names no type of the language. */
export function isUnmapped(shape: Shape, scalars: ReadonlyMap<string, string>): boolean {
  return shape.kind === "any" && shape.scalar !== undefined && !scalars.has(shape.scalar);
}
