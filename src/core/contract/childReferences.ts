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

/** Puts every shape directly inside a shape on a list of shapes that are still to be looked at. */
export function pushChildren(shape: Shape, open: Shape[]): void {
  if (shape.kind === "record") {
    for (const field of shape.fields) open.push(field.type.shape);
    if (shape.rest) open.push(shape.rest.shape);
  } else eachChild(shape, (child) => open.push(child.shape));
}

const noNames: ReadonlySet<string> = new Set();
/** What was found for shapes that hold others: definitions are asked for again and again. */
const namesByShape = new WeakMap<Shape, ReadonlySet<string>>();

/** Keys of the types that a shape names, without looking behind the names. */
export function namesIn(shape: Shape): ReadonlySet<string> {
  switch (shape.kind) {
    case "named":
      return new Set([shape.key]);
    case "record":
    case "list":
    case "map":
    case "tuple":
    case "union": {
      const known = namesByShape.get(shape);
      if (known) return known;
      const found = new Set<string>();
      const open: Shape[] = [shape];
      for (let next = open.pop(); next; next = open.pop()) {
        if (next.kind === "named") found.add(next.key);
        else pushChildren(next, open);
      }
      const names = found.size === 0 ? noNames : found;
      namesByShape.set(shape, names);
      return names;
    }
    default:
      return noNames;
  }
}

/** Keys of all named types that shapes reach, those they name themselves included. */
export function reachedTypes(roots: Iterable<Shape>, shapeOf: (key: string) => Shape | undefined): Set<string> {
  const reached = namedTypes(roots);
  // A set that grows is walked to its end.
  for (const key of reached) {
    const shape = shapeOf(key);
    if (shape) for (const name of namesIn(shape)) reached.add(name);
  }
  return reached;
}

/** Keys of the types that shapes name themselves, without looking behind the names. */
export function namedTypes(shapes: Iterable<Shape>): Set<string> {
  const names = new Set<string>();
  for (const shape of shapes) {
    if (shape.kind === "named") names.add(shape.key);
    else for (const name of namesIn(shape)) names.add(name);
  }
  return names;
}
