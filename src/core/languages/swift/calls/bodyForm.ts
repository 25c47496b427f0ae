import type { Reference } from "../../../contract/model.js";
import { resolveShape } from "../../../contract/resolveShape.js";
import type { StatusReading } from "../../../sdk/lower/reading.js";
import { isTextChoice } from "../../../sdk/planContent.js";
import type { PlannedResponse } from "../../../sdk/sdkPlan.js";
import type { ContractContext } from "../contractContext.js";
import { checkText } from "../types/printChecks.js";
import { printForm, printReference } from "../types/printType.js";

/** The type of what is read of a response; undefined where nothing is. */
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

/** Whether a text can be read as a value of a type. */
export function isWords({ shape }: Reference, { contract }: ContractContext): boolean {
  const inner = resolveShape(shape, contract.types);
  return inner.kind === "text" || isTextChoice(inner);
}

/** What reads a value of a body: an expression. */
export function bodyReader(type: Reference, { as, check }: StatusReading, context: ContractContext): string {
  const { wire } = context;
  if (as === "text") return isWords(type, context) ? printForm(type, "read", context) : `${wire}.readText`;
  const plain = printForm(type, "read", context);
  return check ? `${wire}.checked(${checkText(check, context)}, ${plain})` : plain;
}

/** How a body is read as a whole: an expression. */
export function bodyForm({ type }: PlannedResponse, reading: StatusReading, context: ContractContext): string {
  const { as } = reading;
  if (as === "bytes") return ".bytes";
  if (as === "none" || !type) return ".none";
  return `.${as === "text" ? "text" : "json"}(${bodyReader(type, reading, context)})`;
}
