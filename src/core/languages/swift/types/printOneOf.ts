import type { Field, RecordShape } from "../../../contract/model.js";
import { fieldWords, typeWords } from "../../../sdk/lower/documentation.js";
import type { PlannedType } from "../../../sdk/sdkPlan.js";
import type { ContractContext } from "../contractContext.js";
import { deprecation, docComment, quoted } from "../names/escape.js";
import { filesOf } from "../filesOf.js";
import { spelled } from "../names/identifiers.js";
import { oneOfCases } from "../names/names.js";
import { declaredName, typeName, type PrintedType } from "./printedType.js";
import { printShape, printShapeForm } from "./printType.js";

/**
 * Prints an input of which exactly one field is given (GraphQL, section 3.10.1): an enum with a case for each field,
 * and its writer. The given field is never null.
 */
export function printOneOf(type: PlannedType, record: RecordShape, context: ContractContext): PrintedType {
  const names = oneOfCases(record);
  const nameOf = (field: Field): string => spelled(names.get(field) ?? "");
  const cases = record.fields.map((field) => {
    const { paragraphs, deprecated } = fieldWords(field);
    const words = docComment({ paragraphs }, "  ") + deprecation(deprecated, "  ");
    return `${words}  case ${nameOf(field)}(${printShape(field.type.shape, context)})\n`;
  });
  const indirect = record.fields.some((field) => context.boxed.fields.has(field)) ? "indirect " : "";
  const { wire } = context;
  const flat = context.names.flat.get(type.id) ?? "";
  const rows = record.fields.map(
    (field) =>
      `  case .${nameOf(field)}(let value): fields.required(${quoted(field.name)}, value, ${printShapeForm(field.type.shape, "write", context)})\n`,
  );
  const files = record.fields.flatMap((field) => {
    const text = filesOf(field, "value", context);
    return text === undefined ? [] : [`  case .${nameOf(field)}(let value): files.${text}\n`];
  });
  const rest = files.length < record.fields.length ? "  default: break\n" : "";
  const whole = typeName(type.id, context);
  const isWritten = context.forms.get(type.id)?.isWritten === true;
  return {
    declared: `${docComment(typeWords(type, false))}${context.access}${indirect}enum ${declaredName(type.id, context)}: Swift.Hashable, Swift.Sendable {\n${cases.join("")}}\n`,
    forms: [
      ...(isWritten
        ? [
            `static func write${flat}(_ value: ${whole}) -> ${wire}.JSON {\n  var fields = ${wire}.FieldWriter()\n  switch value {\n${rows.join("")}  }\n  return fields.json\n}\n`,
          ]
        : []),
      ...(isWritten && files.length > 0
        ? [
            `static func files${flat}(_ value: ${whole}) -> ${wire}.Files {\n  var files = ${wire}.Files()\n  switch value {\n${files.join("")}${rest}  }\n  return files\n}\n`,
          ]
        : []),
    ],
  };
}
