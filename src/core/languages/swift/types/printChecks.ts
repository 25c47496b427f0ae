import type { Check, FieldCheck } from "../../../sdk/lower/values/check.js";
import type { PlannedType } from "../../../sdk/sdkPlan.js";
import { constant } from "../names/constants.js";
import type { ContractContext } from "../contractContext.js";
import { quoted } from "../names/escape.js";

/** Prints the check of a type in responses; nothing unless responses are verified. */
export function printCheck({ id }: PlannedType, context: ContractContext): string[] {
  const found = context.contract.checks.find(({ type }) => type.id === id);
  if (!found) return [];
  const { wire } = context;
  const name = `check${context.names.flat.get(id) ?? ""}`;
  const whole = `whole${context.names.flat.get(id) ?? ""}Check`;
  return [
    `private static let ${whole}: ${wire}.Check = ${checkText(found.of, context)}\n\nstatic func ${name}(_ json: ${wire}.JSON) throws(${wire}.Mismatch) {\n  try ${whole}.hold(json)\n}\n`,
  ];
}

/** Returns a check as an expression. */
export function checkText(check: Check, context: ContractContext): string {
  const { wire, space } = context;
  switch (check.kind) {
    case "text":
      return `${wire}.textCheck`;
    case "integer":
      return `${wire}.wholeCheck`;
    case "number":
      return `${wire}.numberCheck`;
    case "boolean":
      return `${wire}.truthCheck`;
    case "anything":
      return `${wire}.anyCheck`;
    case "nothing":
      return `${wire}.noCheck`;
    case "oneOf":
      return `${wire}.oneOfCheck(${check.values.map((value) => constant(value, "JSON")).join(", ")})`;
    case "type":
      return `${wire}.Check(${space}.Forms.check${context.names.flat.get(check.id) ?? ""})`;
    case "list":
      return `${wire}.listCheck(${checkText(check.item, context)})`;
    case "map":
      return `${wire}.mapCheck(${checkText(check.value, context)})`;
    case "tuple": {
      const rest = check.rest ? `, rest: ${checkText(check.rest, context)}` : "";
      return `${wire}.tupleCheck([${check.items.map((item) => checkText(item, context)).join(", ")}], needed: ${String(check.needed)}${rest})`;
    }
    case "record": {
      const optional = check.optional.length > 0 ? `, optional: ${fieldsText(check.optional, context)}` : "";
      const rest = check.rest ? `, rest: ${checkText(check.rest, context)}` : "";
      return `${wire}.recordCheck(${fieldsText(check.required, context)}${optional}${rest})`;
    }
    case "tagged": {
      const rows = check.rows.map(({ value, of }) => `, .init(${quoted(value)}, ${checkText(of, context)})`);
      return `${wire}.taggedCheck(${quoted(check.field)}${rows.join("")})`;
    }
    case "either":
      return `${wire}.eitherCheck(${check.checks.map((each) => checkText(each, context)).join(", ")})`;
    case "orNull":
      return `${wire}.orNullCheck(${checkText(check.of, context)})`;
  }
}

function fieldsText(fields: readonly FieldCheck[], context: ContractContext): string {
  return `[${fields.map(({ name, of }) => `.init(${quoted(name)}, ${checkText(of, context)})`).join(", ")}]`;
}
