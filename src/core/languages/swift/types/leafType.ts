import type { Shape } from "../../../contract/model.js";

/**
 * Returns the type of a value without parts; undefined for any other, and for a value without a type in the contract.
 */
export function leafType(shape: Shape): "String" | "Int32" | "Int64" | "Double" | "Bool" | undefined {
  switch (shape.kind) {
    case "text":
      return "String";
    case "integer":
      return shape.format === "int32" ? "Int32" : "Int64";
    case "number":
      return "Double";
    case "boolean":
      return "Bool";
    default:
      return undefined;
  }
}
