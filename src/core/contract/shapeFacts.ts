import { eachChild } from "./childReferences.js";
import type { Shape } from "./model.js";

/** The facts from one walk through a shape, without following the names in it. */
export interface ShapeFacts {
  /** The keys of the types that it names, each once. */
  readonly names: readonly string[];
  /** Whether a field exists only in requests or only in responses. */
  readonly hasFaces: boolean;
  readonly hasBytes: boolean;
  /** The number of places without a type in the contract. */
  readonly untyped: number;
  /** The places that have a custom scalar, as the scalar's name, one entry for each place. */
  readonly scalars: readonly string[];
}

const none: readonly string[] = [];
const nothingFound: ShapeFacts = { names: none, hasFaces: false, hasBytes: false, untyped: 0, scalars: none };
const untypedFound: ShapeFacts = { ...nothingFound, untyped: 1 };
const bytesFound: ShapeFacts = { ...nothingFound, hasBytes: true };

/** Shapes never change, and planning asks for the same facts many times. */
const knownFacts = new WeakMap<Shape, ShapeFacts>();

/**
 * Returns the facts about a shape and the shapes in it.
 *
 * @param shape read without following its names
 */
export function shapeFacts(shape: Shape): ShapeFacts {
  switch (shape.kind) {
    case "named":
      return { ...nothingFound, names: [shape.key] };
    case "any":
      return shape.scalar === undefined ? untypedFound : { ...nothingFound, scalars: [shape.scalar] };
    case "bytes":
      return bytesFound;
    case "record":
    case "list":
    case "map":
    case "tuple":
    case "union": {
      const known = knownFacts.get(shape);
      if (known) return known;
      const facts = factsInside(shape);
      knownFacts.set(shape, facts);
      return facts;
    }
    default:
      return nothingFound;
  }
}

function factsInside(shape: Shape): ShapeFacts {
  const names: string[] = [];
  const scalars: string[] = [];
  let hasFaces = false;
  let hasBytes = false;
  let untyped = 0;
  const open: Shape[] = [shape];
  const look = (inner: Shape): void => {
    switch (inner.kind) {
      case "named":
        names.push(inner.key);
        return;
      case "any":
        if (inner.scalar === undefined) untyped++;
        else scalars.push(inner.scalar);
        return;
      case "bytes":
        hasBytes = true;
        return;
      case "record":
      case "list":
      case "map":
      case "tuple":
      case "union":
        open.push(inner);
        return;
      default:
    }
  };
  for (let next = open.pop(); next; next = open.pop()) {
    if (next.kind === "record") {
      for (const field of next.fields) {
        if (field.face !== undefined) hasFaces = true;
        look(field.type.shape);
      }
      if (next.rest) look(next.rest.shape);
    } else
      eachChild(next, (child) => {
        look(child.shape);
      });
  }
  return { names: names.length < 2 ? names : [...new Set(names)], hasFaces, hasBytes, untyped, scalars };
}
