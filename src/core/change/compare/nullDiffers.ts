import type { Points } from "./points.js";

/** Whether null came or went; a value that nobody said anything about could always be null. */
export function nullDiffers({ before, after }: Points["value"]): boolean {
  if (before.nullable === after.nullable) return false;
  const isUnsaid = ({ shape }: Points["value"]["before"]): boolean =>
    shape.kind === "any" && shape.scalar === undefined;
  return !isUnsaid(before) && !isUnsaid(after);
}
