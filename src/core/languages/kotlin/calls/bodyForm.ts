import type { Reference } from "../../../contract/model.js";
import { resolveShape } from "../../../contract/resolveShape.js";
import { isTextChoice } from "../../../sdk/planContent.js";
import type { StatusReading } from "../../../sdk/lower/reading.js";
import type { PlannedResponse } from "../../../sdk/sdkPlan.js";
import type { FileContext } from "../contractContext.js";
import { checkText } from "../types/printChecks.js";
import { printForm, printReference } from "../types/printType.js";

/** Returns the type of a response's body; undefined if none is read. */
export function bodyType({ type }: PlannedResponse, { as }: StatusReading, context: FileContext): string | undefined {
  if (as === "none" || !type) return as === "bytes" ? byteString(context) : undefined;
  if (as === "bytes") return byteString(context);
  if (as === "text" && !isWords(type, context)) return "String";
  return printReference(type, context);
}

function byteString({ uses }: FileContext): string {
  return uses.other("okio.ByteString");
}

/** Returns whether a text can be read as a value of a type. */
export function isWords({ shape }: Reference, { contract }: FileContext): boolean {
  const inner = resolveShape(shape, contract.types);
  return inner.kind === "text" || isTextChoice(inner);
}

const itemKinds = {
  lines: "Lines",
  sequence: "Sequence",
  events: "Events",
  eventTexts: "EventTexts",
  eventRecords: "EventRecords",
} as const;

/** Returns an expression that describes how a body is read. */
export function bodyForm({ type }: PlannedResponse, reading: StatusReading, context: FileContext): string {
  const { uses } = context;
  const form = uses.wire("BodyForm");
  const { as, check } = reading;
  if (as === "bytes") return `${form}.Bytes`;
  if (as === "none" || !type) return `${form}.None`;
  if (as === "text") {
    const reader = isWords(type, context) ? printForm(type, "read", context) : uses.wire("TextForm");
    return `${form}.Text(${reader})`;
  }
  const plain = printForm(type, "read", context);
  const reader = check ? `${uses.wire("checked")}(${checkText(check, context)}, ${plain})` : plain;
  if (as === "json") return `${form}.Json(${reader})`;
  return `${form}.Items(${uses.wire("ItemKind")}.${itemKinds[as]}, ${reader})`;
}
