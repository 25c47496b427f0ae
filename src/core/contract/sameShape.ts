import { sortedBy } from "../text/sortedBy.js";
import type { Field, Reference, Shape } from "./model.js";

/**
 * Returns a text that is equal for two references exactly if they describe the same values.
 *
 * Places, descriptions and the order of fields do not count. Named types are compared by key, so that the text of a
 * recursive shape is finite.
 */
export function referenceSignature(reference: Reference): string {
  const signature = shapeSignature(reference.shape);
  return reference.nullable ? `${signature}?` : signature;
}

/** Returns whether two references allow the same values. */
export function sameReference(a: Reference, b: Reference): boolean {
  return a === b || referenceSignature(a) === referenceSignature(b);
}

/** Returns a text that is equal for two shapes exactly if they allow the same values. */
export function shapeSignature(shape: Shape): string {
  switch (shape.kind) {
    case "text":
    case "integer":
    case "number":
      return `${shape.kind}:${shape.format ?? ""}${shape.constraints ? JSON.stringify(shape.constraints) : ""}`;
    case "literal":
      return `=${JSON.stringify(shape.value)}`;
    case "choice":
      return `choice${JSON.stringify(shape.values.map((each) => each.value))}`;
    case "record": {
      const fields = sortedBy(shape.fields, (field) => field.name).map(fieldSignature);
      const rest = shape.rest ? `...${referenceSignature(shape.rest)}` : "";
      return `{${fields.join(",")}${rest}${shape.closed ? "!" : ""}${shape.oneOf ? "1" : ""}${shape.seals ? JSON.stringify(shape.seals) : ""}${shape.spreads ? JSON.stringify(shape.spreads) : ""}}`;
    }
    case "list":
      return `[${referenceSignature(shape.item)}]${shape.constraints ? JSON.stringify(shape.constraints) : ""}`;
    case "map":
      return `<${referenceSignature(shape.value)}>`;
    case "tuple":
      return `(${shape.items.map(referenceSignature).join(",")}${shape.rest ? `...${referenceSignature(shape.rest)}` : ""})${shape.needed === undefined ? "" : String(shape.needed)}`;
    case "union":
      return `(${shape.members.map(referenceSignature).join("|")})${shape.tag ? JSON.stringify(shape.tag) : ""}`;
    case "any":
      return shape.scalar === undefined ? "any" : `scalar:${shape.scalar}`;
    case "named":
      return `#${shape.key}`;
    case "boolean":
    case "bytes":
      return shape.kind;
  }
}

function fieldSignature(field: Field): string {
  return `${JSON.stringify(field.name)}${field.required ? "" : "?"}${field.face ?? ""}:${referenceSignature(field.type)}`;
}
