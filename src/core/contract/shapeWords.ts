import type { Reference, Shape } from "./model.js";

/**
 * Returns a shape in a few words, for a sentence: "an integer", "a list of Berth".
 *
 * @param shape a shape of any kind
 */
export function shapeWords(shape: Shape): string {
  switch (shape.kind) {
    case "text":
      return shape.format === undefined ? "a string" : shape.format === "id" ? "an ID" : `a string (${shape.format})`;
    case "integer":
      return "an integer";
    case "number":
      return "a number";
    case "boolean":
      return "a boolean";
    case "literal":
      return `the constant ${JSON.stringify(shape.value)}`;
    case "choice":
      return "an enum";
    case "record":
      return "an object";
    case "list":
      return `a list of ${bareWords(shape.item)}`;
    case "map":
      return "a map";
    case "tuple":
      return "a tuple";
    case "union":
      return "a union";
    case "bytes":
      return "bytes";
    case "any":
      return shape.scalar ?? "any value";
    case "named":
      return shape.key;
  }
}

function bareWords(reference: Reference): string {
  return shapeWords(reference.shape).replace(/^an? /, "");
}
