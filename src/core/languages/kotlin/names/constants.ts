import type { ChoiceValue } from "../../../contract/model.js";
import { quoted } from "./escape.js";

/**
 * Returns a constant as source.
 *
 * @param type the Kotlin type that it must have
 */
export function constant(value: ChoiceValue, type: string): string {
  if (typeof value === "string") return type === "JsonPrimitive" ? `JsonPrimitive(${quoted(value)})` : quoted(value);
  if (typeof value === "boolean") return type === "JsonPrimitive" ? `JsonPrimitive(${String(value)})` : String(value);
  return type === "JsonPrimitive" ? `JsonPrimitive(${numberText(value)})` : numberText(value, type);
}

/** Returns a number as source of the given type. */
export function numberText(value: number, type = Number.isInteger(value) ? "Long" : "Double"): string {
  if (type === "Long") return `${BigInt(Math.trunc(value)).toString()}L`;
  if (type === "Int") return String(Math.trunc(value));
  const text = String(value);
  return /[.e]/.test(text) ? text.replace("e+", "e") : `${text}.0`;
}
