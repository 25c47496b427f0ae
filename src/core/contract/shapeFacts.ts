import { eachChild } from "./childReferences.js";
import type { Shape } from "./model.js";

/** What one walk through a shape finds, without looking behind the names it uses. */
export interface ShapeFacts {
  /** Keys of the types that it names, each once. */
  readonly names: readonly string[];
  /** A field of it goes one way only. */
  readonly hasFaces: boolean;
  readonly hasBytes: boolean;
  /** Places about which the contract says nothing. */
  readonly untyped: number;
  /** Its places that are a scalar of the contract's own, by the scalar's name, one entry a place. */
  readonly scalars: readonly string[];
}

const none: readonly string[] = [];
const nothingFound: ShapeFacts = { names: none, hasFaces: false, hasBytes: false, untyped: 0, scalars: none };
const untypedFound: ShapeFacts = { ...nothingFound, untyped: 1 };
const bytesFound: ShapeFacts = { ...nothingFound, hasBytes: true };

/** What a shape and the shapes in it are made of. */
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
    case "union":
      return factsInside(shape);
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
