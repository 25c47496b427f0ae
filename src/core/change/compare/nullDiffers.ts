import type { Points } from "./points.js";

/** Returns whether null was added or removed. A value without a type in the contract could always be null. */
export function nullDiffers({ before, after }: Points["value"]): boolean {
  if (before.nullable === after.nullable) return false;
  const isUnsaid = ({ shape }: Points["value"]["before"]): boolean =>
    shape.kind === "any" && shape.scalar === undefined;
  return !isUnsaid(before) && !isUnsaid(after);
}
