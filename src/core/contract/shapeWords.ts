import type { Reference, Shape } from "./model.js";

/** A shape in a few words, for a sentence: "an integer", "a list of Berth". */
export function shapeWords(shape: Shape): string {
  switch (shape.kind) {
    case "text":
      return shape.format === undefined ? "text" : shape.format === "id" ? "an ID" : `text (${shape.format})`;
    case "integer":
      return "an integer";
    case "number":
      return "a number";
    case "boolean":
      return "true or false";
    case "literal":
      return `the constant ${JSON.stringify(shape.value)}`;
    case "choice":
      return "a choice";
    case "record":
      return "a record";
    case "list":
      return `a list of ${bareWords(shape.item)}`;
    case "map":
      return "a map";
    case "tuple":
      return "a tuple";
    case "union":
      return "one of several shapes";
    case "bytes":
      return "bytes";
    case "any":
      return shape.scalar ?? "anything";
    case "named":
      return shape.key;
  }
}

function bareWords(reference: Reference): string {
  return shapeWords(reference.shape).replace(/^an? /, "");
}
