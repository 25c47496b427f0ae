import type { Reference, Shape } from "./model.js";

/**
 * Calls a function for every reference directly inside a shape, in a fixed order. Only this module knows where a shape
 * has children.
 *
 * @param visit called with each child
 */
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
