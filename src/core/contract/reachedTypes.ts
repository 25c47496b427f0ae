import type { Shape } from "./model.js";
import { shapeFacts } from "./shapeFacts.js";

/**
 * Returns the keys of all named types that shapes reach.
 *
 * @param roots the shapes to start from
 * @param shapeOf returns the shape of a key; undefined if there is none
 * @returns the keys, those in the roots included
 */
export function reachedTypes(roots: Iterable<Shape>, shapeOf: (key: string) => Shape | undefined): Set<string> {
  return new TypeGraph(shapeOf).reached(roots);
}

/** The references between named types. Each type is read once, however many questions follow. */
export class TypeGraph {
  private readonly named = new Map<string, readonly string[]>();

  constructor(private readonly shapeOf: (key: string) => Shape | undefined) {}

  /** Returns the keys of all named types that shapes reach, those in the roots included. */
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

/**
 * Returns the keys of the types that shapes name directly, without following the names.
 *
 * @param shapes read with all shapes inside them
 */
export function namedTypes(shapes: Iterable<Shape>): Set<string> {
  const names = new Set<string>();
  for (const shape of shapes) {
    if (shape.kind === "named") names.add(shape.key);
    else for (const name of shapeFacts(shape).names) names.add(name);
  }
  return names;
}
