import type { Check, FieldCheck } from "../../../sdk/lower/values/check.js";
import type { PlannedType } from "../../../sdk/sdkPlan.js";
import type { FileContext } from "../contractContext.js";
import { quoted } from "../names/escape.js";
import { constant } from "../names/constants.js";

/** Prints the check of a type in responses; nothing unless responses are verified. */
export function printCheck({ id }: PlannedType, context: FileContext): string[] {
  const found = context.contract.checks.find(({ type }) => type.id === id);
  if (!found) return [];
  const { uses } = context;
  const check = uses.wire("Check");
  const json = uses.other("kotlinx.serialization.json.JsonElement");
  const name = context.names.checks.get(id) ?? "";
  return [
    `internal object ${name} : ${check} {\n    private val whole: ${check} by lazy { ${checkText(found.of, context)} }\n\n    override fun hold(value: ${json}) = whole.hold(value)\n}\n`,
  ];
}

/** The largest number of constants in one expression. */
const mostConstants = 200;

/** Returns a check as an expression. */
export function checkText(check: Check, context: FileContext): string {
  const { uses } = context;
  switch (check.kind) {
    case "text":
      return uses.wire("textCheck");
    case "integer":
      return uses.wire("wholeCheck");
    case "number":
      return uses.wire("numberCheck");
    case "boolean":
      return uses.wire("truthCheck");
    case "anything":
      return uses.wire("anyCheck");
    case "nothing":
      return uses.wire("noCheck");
    case "oneOf":
      // A method has no space for thousands of constants, but one string of any length.
      if (check.values.length > mostConstants)
        return `${uses.wire("oneOfCheck")}(${quoted(JSON.stringify(check.values))})`;
      uses.other("kotlinx.serialization.json.JsonPrimitive");
      return `${uses.wire("oneOfCheck")}(${check.values.map((value) => constant(value, "JsonPrimitive")).join(", ")})`;
    case "type":
      return context.names.checks.get(check.id) ?? uses.wire("anyCheck");
    case "list":
      return `${uses.wire("listCheck")}(${checkText(check.item, context)})`;
    case "map":
      return `${uses.wire("mapCheck")}(${checkText(check.value, context)})`;
    case "tuple": {
      const rest = check.rest ? `, ${checkText(check.rest, context)}` : "";
      return `${uses.wire("tupleCheck")}(listOf(${check.items.map((item) => checkText(item, context)).join(", ")}), ${String(check.needed)}${rest})`;
    }
    case "record": {
      const rest = check.rest ? `, ${checkText(check.rest, context)}` : "";
      return `${uses.wire("recordCheck")}(${fieldsText(check.required, context)}, ${fieldsText(check.optional, context)}${rest})`;
    }
    case "tagged": {
      const rows = check.rows.map(({ value, of }) => `, ${quoted(value)} to ${checkText(of, context)}`);
      return `${uses.wire("taggedCheck")}(${quoted(check.field)}${rows.join("")})`;
    }
    case "either":
      return `${uses.wire("eitherCheck")}(${check.checks.map((each) => checkText(each, context)).join(", ")})`;
    case "orNull":
      return `${uses.wire("orNullCheck")}(${checkText(check.of, context)})`;
  }
}

function fieldsText(fields: readonly FieldCheck[], context: FileContext): string {
  if (fields.length === 0) return "emptyList()";
  const rows = fields.map(
    ({ name, of }) => `${context.uses.wire("field")}(${quoted(name)}, ${checkText(of, context)})`,
  );
  return `listOf(${rows.join(", ")})`;
}
