import type { Shape } from "../../../contract/model.js";

/**
 * Returns the type of a value without parts; undefined for any other, and for a value without a type in the contract.
 */
export function leafType(shape: Shape): string | undefined {
  switch (shape.kind) {
    case "text":
      return "String";
    case "integer":
      return shape.format === "int32" ? "Int" : "Long";
    case "number":
      return "Double";
    case "boolean":
      return "Boolean";
    default:
      return undefined;
  }
}
