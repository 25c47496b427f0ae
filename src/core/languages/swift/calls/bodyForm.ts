import type { Reference } from "../../../contract/model.js";
import { resolveShape } from "../../../contract/resolveShape.js";
import type { StatusReading } from "../../../sdk/lower/reading.js";
import { isTextChoice } from "../../../sdk/planContent.js";
import type { PlannedResponse } from "../../../sdk/sdkPlan.js";
import type { ContractContext } from "../contractContext.js";
import { checkText } from "../types/printChecks.js";
import { printForm, printReference } from "../types/printType.js";

/** Returns the type of a response's body; undefined if none is read. */
export function bodyType(
  { type }: PlannedResponse,
  { as }: StatusReading,
  context: ContractContext,
): string | undefined {
  if (as === "bytes") return "Foundation.Data";
  if (as === "none" || !type) return undefined;
  if (as === "text" && !isWords(type, context)) return "Swift.String";
  return printReference(type, context);
}

/** Returns whether a text can be read as a value of a type. */
export function isWords({ shape }: Reference, { contract }: ContractContext): boolean {
  const inner = resolveShape(shape, contract.types);
  return inner.kind === "text" || isTextChoice(inner);
}

/** Returns an expression that reads a value from a body. */
export function bodyReader(type: Reference, { as, check }: StatusReading, context: ContractContext): string {
  const { wire } = context;
  if (as === "text") return isWords(type, context) ? printForm(type, "read", context) : `${wire}.readText`;
  const plain = printForm(type, "read", context);
  return check ? `${wire}.checked(${checkText(check, context)}, ${plain})` : plain;
}

/** Returns an expression that describes how a body is read as a whole. */
export function bodyForm({ type }: PlannedResponse, reading: StatusReading, context: ContractContext): string {
  const { as } = reading;
  if (as === "bytes") return ".bytes";
  if (as === "none" || !type) return ".none";
  return `.${as === "text" ? "text" : "json"}(${bodyReader(type, reading, context)})`;
}
