import type { Shape } from "./model.js";
import { shapeFacts } from "./shapeFacts.js";

/** Keys of all named types that shapes reach, those they name themselves included. */
export function reachedTypes(roots: Iterable<Shape>, shapeOf: (key: string) => Shape | undefined): Set<string> {
  const reached = namedTypes(roots);
  const open = [...reached];
  for (let key = open.pop(); key !== undefined; key = open.pop()) {
    const shape = shapeOf(key);
    if (!shape) continue;
    for (const name of shapeFacts(shape).names) {
      if (reached.has(name)) continue;
      reached.add(name);
      open.push(name);
    }
  }
  return reached;
}

/** Keys of the types that shapes name themselves, without looking behind the names. */
export function namedTypes(shapes: Iterable<Shape>): Set<string> {
  const names = new Set<string>();
  for (const shape of shapes) {
    if (shape.kind === "named") names.add(shape.key);
    else for (const name of shapeFacts(shape).names) names.add(name);
  }
  return names;
}
