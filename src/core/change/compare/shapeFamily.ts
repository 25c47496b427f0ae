import type { Shape } from "../../contract/model.js";

/**
 * Returns the kind of a shape. Two shapes of the same kind can be compared in detail.
 *
 * @param shape a shape that is not a name
 */
export function shapeFamily(shape: Shape): string {
  switch (shape.kind) {
    case "literal":
    case "choice": {
      const kinds = (shape.kind === "literal" ? [shape.value] : shape.values.map(({ value }) => value)).map(
        (value) => typeof value,
      );
      return `choice of ${[...new Set(kinds)].sort().join(" and ")}`;
    }
    case "map":
    case "record":
      return "record";
    case "tuple":
      return `tuple of ${String(shape.items.length)}, ${String(shape.needed ?? shape.items.length)}, ${String(shape.rest !== undefined)}`;
    case "named":
      return `named ${shape.key}`;
    case "any":
      return `any ${shape.scalar ?? ""}`;
    default:
      return shape.kind;
  }
}
