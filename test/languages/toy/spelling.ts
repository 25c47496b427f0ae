import type { Reference, Shape } from "../../../src/core/contract/model.js";
import type { Words } from "../../../src/core/sdk/lower/documentation.js";
import { decodedLeaf } from "../../../src/core/sdk/lower/values/decodedLeaf.js";
import type { LoweredContract } from "../../../src/core/sdk/lower/loweredSdk.js";
import { escapes, replaceHidden } from "../../../src/core/text/visible.js";
import { positionNames } from "../../../src/core/sdk/lower/values/partNames.js";

/** How the toy spells the types of a contract. */
export interface ToySpelling {
  readonly contract: LoweredContract;
  readonly types: ReadonlyMap<string, string>;
  /** The configured type of a scalar. */
  readonly scalars: ReadonlyMap<string, string>;
}

/** A string that no text in it can end. */
export function toyText(text: string): string {
  return replaceHidden(JSON.stringify(text), escapes);
}

/** Comment lines, which no text can end. */
export function toyComment({ paragraphs, deprecated }: Words, indent: string): string {
  const said = [...paragraphs, ...(deprecated === undefined ? [] : [`not any more: ${deprecated}`])];
  const lines = said.flatMap((paragraph) => (paragraph ?? "").split(/\r\n|[\n\r\u2028\u2029]/));
  return lines
    .filter((line) => line.trim() !== "")
    .map((line) => `${indent}# ${replaceHidden(line.trim(), () => " ")}\n`)
    .join("");
}

/** A use of a shape. The toy does not distinguish null from absent. */
export function toyType(reference: Reference, spelling: ToySpelling): string {
  return ofShape(reference.shape, spelling) + (reference.nullable ? "?" : "");
}

function ofShape(shape: Shape, spelling: ToySpelling): string {
  const leaf = decodedLeaf(shape, spelling.contract.settings);
  if (leaf) return leaf.kind;
  switch (shape.kind) {
    case "text":
      return "words";
    case "integer":
      return "whole";
    case "number":
      return "decimal";
    case "boolean":
      return "flag";
    case "named":
      return spelling.types.get(shape.key) ?? "anything";
    case "list":
      return `list(${toyType(shape.item, spelling)})`;
    case "map":
      return `map(${toyType(shape.value, spelling)})`;
    case "tuple": {
      const names = positionNames(shape.items.length);
      return `(${shape.items.map((item, at) => `${names[at] ?? ""}: ${toyType(item, spelling)}`).join(", ")})`;
    }
    case "literal":
      return toyText(String(shape.value));
    case "bytes":
      return "bytes";
    case "any":
      return (shape.scalar !== undefined && spelling.scalars.get(shape.scalar)) || "anything";
    default:
      return "anything";
  }
}
