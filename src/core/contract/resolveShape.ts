import type { Reference, Shape, TypeDefinition } from "./model.js";

export type TypeTable = ReadonlyMap<string, TypeDefinition>;

/** The types of a contract or of a plan, by name. */
export type ShapeTable = Pick<ReadonlyMap<string, { readonly shape: Shape; readonly nullable?: boolean }>, "get">;

/**
 * Follows `named` shapes to their definition. If one of them may be null, so may the result.
 *
 * @param reference the use of a shape
 * @param types the definitions by key
 * @returns the reference with the shape that is not a name; for a circle of names, with one of them
 */
export function resolveReference(reference: Reference, types: ShapeTable): Reference {
  let { shape, nullable } = reference;
  if (shape.kind !== "named") return reference;
  const circle = new CircleWatch();
  while (shape.kind === "named" && !circle.isClosedBy(shape.key)) {
    const definition = types.get(shape.key);
    if (!definition) return { shape: { kind: "any" }, nullable };
    nullable ||= definition.nullable === true;
    shape = definition.shape;
  }
  return { shape, nullable };
}

/**
 * Follows names to the shape that they stand for.
 *
 * @param shape a shape of any kind
 * @param types the definitions by key
 * @returns the first shape that is not a name; for a circle of names, one of them
 */
export function resolveShape(shape: Shape, types: ReadonlyMap<string, { readonly shape: Shape }>): Shape {
  if (shape.kind !== "named") return shape;
  let current: Shape = types.get(shape.key)?.shape ?? { kind: "any" };
  if (current.kind !== "named") return current;
  const circle = new CircleWatch();
  while (current.kind === "named" && !circle.isClosedBy(current.key))
    current = types.get(current.key)?.shape ?? { kind: "any" };
  return current;
}

/** Detects that a chain of names has become a circle, without storing all of them (Brent's algorithm). */
class CircleWatch {
  private mark: string | undefined;
  private steps = 0;
  private limit = 1;

  isClosedBy(key: string): boolean {
    if (key === this.mark) return true;
    if (++this.steps === this.limit) {
      this.mark = key;
      this.steps = 0;
      this.limit *= 2;
    }
    return false;
  }
}
