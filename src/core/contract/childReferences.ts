import type { Reference, Shape } from "./model.js";

/** Calls back for every reference directly inside a shape, in a fixed order. The one place that knows where a shape has children. */
export function eachChild(shape: Shape, visit: (child: Reference) => void): void {
  switch (shape.kind) {
    case "record":
      for (const field of shape.fields) visit(field.type);
      if (shape.rest) visit(shape.rest);
      return;
    case "list":
      visit(shape.item);
      return;
    case "map":
      visit(shape.value);
      return;
    case "tuple":
    case "union":
      for (const child of shape.kind === "tuple" ? shape.items : shape.members) visit(child);
      if (shape.kind === "tuple" && shape.rest) visit(shape.rest);
      return;
    default:
  }
}

/** Keys of all named types a shape reaches, itself included when named. */
export function reachedTypes(
  roots: Iterable<Shape>,
  shapeOf: (key: string) => Shape | undefined,
  into = new Set<string>(),
): Set<string> {
  const open: Shape[] = [...roots];
  for (let shape = open.pop(); shape; shape = open.pop()) {
    if (shape.kind === "named") {
      if (into.has(shape.key)) continue;
      into.add(shape.key);
      const next = shapeOf(shape.key);
      if (next) open.push(next);
      continue;
    }
    eachChild(shape, (child) => open.push(child.shape));
  }
  return into;
}

/** Keys of the types that shapes name themselves, without looking behind the names. */
export function namedTypes(shapes: Iterable<Shape>): Set<string> {
  return reachedTypes(shapes, () => undefined);
}
