import type { Shape } from "../../contract/model.js";
import { referenceSignature } from "../../contract/sameShape.js";

/** Returns whether two shapes have most of their fields, values or members in common. */
export function partsShared(a: Shape, b: Shape): boolean {
  if (a.kind !== b.kind) return false;
  const left = partsOf(a);
  const right = new Set(partsOf(b));
  const shared = left.filter((part) => right.has(part)).length;
  return shared > 0 && shared * 3 >= Math.max(left.length, right.size) * 2;
}

function partsOf(shape: Shape): string[] {
  if (shape.kind === "record") return shape.fields.map(({ name }) => name);
  if (shape.kind === "choice") return shape.values.map(({ value }) => String(value));
  if (shape.kind === "union") return shape.members.map((member) => referenceSignature(member));
  return [];
}
