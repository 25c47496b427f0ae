import type { Reference, Shape } from "./model.js";

/** The references directly inside a shape, in a fixed order. The one place that knows where a shape has children. */
export function childReferences(shape: Shape): readonly Reference[] {
  switch (shape.kind) {
    case "record":
      return [...shape.fields.map((field) => field.type), ...(shape.rest ? [shape.rest] : [])];
    case "list":
      return [shape.item];
    case "map":
      return [shape.value];
    case "tuple":
      return shape.rest ? [...shape.items, shape.rest] : shape.items;
    case "union":
      return shape.members;
    case "text":
    case "integer":
    case "number":
    case "boolean":
    case "literal":
    case "choice":
    case "bytes":
    case "any":
    case "named":
      return [];
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
    for (const child of childReferences(shape)) open.push(child.shape);
  }
  return into;
}

/** Keys of the types that shapes name themselves, without looking behind the names. */
export function namedTypes(shapes: Iterable<Shape>): Set<string> {
  return reachedTypes(shapes, () => undefined);
}
