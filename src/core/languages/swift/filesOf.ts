import type { Field } from "../../contract/model.js";
import { resolveShape } from "../../contract/resolveShape.js";
import type { ContractContext } from "./contractContext.js";
import { quoted } from "./names/escape.js";

/** Returns a call that collects the files of one field; undefined if it contains none. */
export function filesOf(field: Field, value: string, context: ContractContext): string | undefined {
  const { types } = context.contract;
  const shape = resolveShape(field.type.shape, types);
  const name = (): string => quoted(field.name);
  if (shape.kind === "bytes") return `addFile(${name()}, ${value})`;
  const item = shape.kind === "list" ? shape.item : undefined;
  const inner = item ? resolveShape(item.shape, types) : shape;
  if (item && inner.kind === "bytes") return `addFiles(${name()}, ${value})`;
  const form =
    inner.kind === "record" && context.filed.has(inner)
      ? filesForm(item?.shape ?? field.type.shape, context)
      : undefined;
  if (form === undefined) return undefined;
  return item ? `addFiles(ofEach: ${name()}, ${value}, ${form})` : `addFiles(of: ${name()}, ${value}, ${form})`;
}

/** Returns the function that collects the files of a shape's record. */
export function filesForm(shape: Field["type"]["shape"], context: ContractContext): string | undefined {
  let found = shape;
  const seen = new Set<string>();
  while (found.kind === "named" && !seen.has(found.key)) {
    seen.add(found.key);
    const type = context.contract.types.get(found.key);
    if (type?.shape.kind === "record") return `${context.space}.Forms.files${context.names.flat.get(found.key) ?? ""}`;
    if (!type) return undefined;
    found = type.shape;
  }
  return undefined;
}
