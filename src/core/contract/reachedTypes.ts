import type { Shape } from "./model.js";
import { shapeFacts } from "./shapeFacts.js";

/** Keys of all named types that shapes reach, those they name themselves included. */
export function reachedTypes(roots: Iterable<Shape>, shapeOf: (key: string) => Shape | undefined): Set<string> {
  return new TypeGraph(shapeOf).reached(roots);
}

/** Which types name which; each type is looked into once, however often it is asked what reaches what. */
export class TypeGraph {
  private readonly named = new Map<string, readonly string[]>();

  constructor(private readonly shapeOf: (key: string) => Shape | undefined) {}

  /** Keys of all named types that shapes reach, those they name themselves included. */
  reached(roots: Iterable<Shape>): Set<string> {
    const reached = namedTypes(roots);
    const open = [...reached];
    for (let key = open.pop(); key !== undefined; key = open.pop())
      for (const name of this.namedBy(key)) {
        if (reached.has(name)) continue;
        reached.add(name);
        open.push(name);
      }
    return reached;
  }

  private namedBy(key: string): readonly string[] {
    const known = this.named.get(key);
    if (known) return known;
    const shape = this.shapeOf(key);
    const names = shape ? shapeFacts(shape).names : [];
    this.named.set(key, names);
    return names;
  }
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
