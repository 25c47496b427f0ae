import type { Field } from "../../contract/model.js";
import { resolveShape } from "../../contract/resolveShape.js";
import type { FileContext } from "./contractContext.js";
import { quoted } from "./names/escape.js";
import { printShapeForm } from "./types/printType.js";

/** Returns a statement that collects the files of one field; undefined if it contains none. */
export function filesOf(
  field: Field,
  { value, isSent }: { readonly value: string; readonly isSent: boolean },
  context: FileContext,
): string | undefined {
  const access = (): string => (isSent ? `${value}.${context.uses.wire("orNull")}()` : value);
  const { types } = context.contract;
  const shape = resolveShape(field.type.shape, types);
  const name = (): string => quoted(field.name);
  if (shape.kind === "bytes") return `${context.uses.wire("addFile")}(${name()}, ${access()})`;
  const item = shape.kind === "list" ? shape.item : undefined;
  const inner = item ? resolveShape(item.shape, types) : shape;
  if (item && inner.kind === "bytes") return `${context.uses.wire("addFiles")}(${name()}, ${access()})`;
  if (inner.kind !== "record" || !context.filed.has(inner)) return undefined;
  const form = printShapeForm(item ? item.shape : field.type.shape, "write", context);
  return item
    ? `${context.uses.wire("addNestedFiles")}(${name()}, ${access()}) { ${form}.files(it) }`
    : `${context.uses.wire("addFilesOf")}(${name()}, ${access()}) { ${form}.files(it) }`;
}
