import type { Reference } from "../../contract/model.js";
import type { Data } from "../../text/parseData.js";

export const plainShapes = {
  string: { kind: "text" },
  integer: { kind: "integer" },
  number: { kind: "number" },
  boolean: { kind: "boolean" },
} as const;

const plainReferences = {
  string: { shape: plainShapes.string, nullable: false },
  integer: { shape: plainShapes.integer, nullable: false },
  number: { shape: plainShapes.number, nullable: false },
  boolean: { shape: plainShapes.boolean, nullable: false },
} as const;

/**
 * Reads a schema that has one type without limits, format or composition, and that breaks no rule. Half of a contract's
 * schemas are like this.
 *
 * @returns undefined for all other schemas, and for those that need more than one look at their members
 */
export function plainReference(schema: Data): Reference | undefined {
  let type: unknown;
  for (const key in schema) {
    switch (key) {
      case "type":
        type = schema[key];
        break;
      case "title":
      case "description":
        if (typeof schema[key] !== "string") return undefined;
        break;
      case "deprecated":
      case "readOnly":
      case "writeOnly":
        if (typeof schema[key] !== "boolean") return undefined;
        break;
      case "example":
      case "examples":
      case "default":
        break;
      default:
        return undefined;
    }
  }
  return type === "string" || type === "integer" || type === "number" || type === "boolean"
    ? plainReferences[type]
    : undefined;
}

/** Returns the target of a schema that is only a reference; undefined for all other schemas. */
export function soleReference(schema: Data): string | undefined {
  for (const key in schema) if (key !== "$ref") return undefined;
  const reference = schema["$ref"];
  return typeof reference === "string" ? reference : undefined;
}
