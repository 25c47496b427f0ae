import type { ChoiceValue } from "../../../contract/model.js";
import { quoted } from "./escape.js";

/** Returns a constant as source. @param kind the type that it must have, "JSON" for the runtime's */
export function constant(value: ChoiceValue, kind: string): string {
  const plain =
    typeof value === "string" ? quoted(value) : typeof value === "boolean" ? String(value) : numberText(value, kind);
  if (kind !== "JSON") return plain;
  if (typeof value === "string") return `.text(${plain})`;
  if (typeof value === "boolean") return `.truth(${plain})`;
  return plain;
}

/** Returns a number as source of the given type. */
export function numberText(value: number, kind = Number.isInteger(value) ? "Int64" : "Double"): string {
  if (kind === "Int64" || kind === "Int32") return BigInt(Math.trunc(value)).toString();
  const text = String(value);
  return /[.e]/.test(text) ? text.replace("e+", "e") : kind === "Double" ? `${text}.0` : text;
}
