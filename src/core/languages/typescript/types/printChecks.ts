import type { Check, FieldCheck } from "../../../sdk/lower/values/check.js";
import type { LoweredContract } from "../../../sdk/lower/loweredSdk.js";
import { sortedBy } from "../../../text/sortedBy.js";
import { literalKey, propertyName, quoted } from "../names/escape.js";
import { printLiteral, type TypePrinter } from "./printType.js";

type Names = Pick<TypePrinter, "names" | "types" | "uses">;

/** Prints the check of every planned type in responses. */
export function printChecks({ checks }: LoweredContract, printer: Names): string {
  const sorted = sortedBy(checks, ({ type }) => printer.names.get(type.id) ?? type.id);
  const rows = sorted.map(({ type, of }) => {
    const others: string[] = [];
    const text = spell(of, (id) => {
      others.push(id);
      return `of(${quoted(nameOf(id, printer))})`;
    });
    return `  ${propertyName(nameOf(type.id, printer))}: (${others.length > 0 ? "of" : ""}) => ${text},\n`;
  });
  // Constants that refer to each other would take the compiler time that grows with the square of their number.
  return rows.length === 0
    ? ""
    : `/** The checks that validate responses, by the name of their type. */\nexport const checkOf: wire.CheckOf = wire.checksByName({\n${rows.join("")}});\n`;
}

/** Returns a check as written outside of the module that declares those of types. */
export function checkText(check: Check, printer: Names): string {
  return spell(check, (id) => {
    printer.uses.module("checks", true);
    return `checks.checkOf(${quoted(nameOf(id, printer))})`;
  });
}

function nameOf(id: string, { names, types }: Names): string {
  return names.get(id) ?? types.get(id)?.name ?? id;
}

const plainChecks = {
  text: "wire.isText",
  integer: "wire.isInteger",
  number: "wire.isNumber",
  boolean: "wire.isBoolean",
  anything: "wire.isAnything",
  nothing: "wire.isNothing",
} as const;

/** @param typeCheck returns how the check of a type is written */
function spell(check: Check, typeCheck: (id: string) => string): string {
  const inner = (of: Check): string => spell(of, typeCheck);
  switch (check.kind) {
    case "oneOf":
      return `wire.isOneOf(${check.values.map(printLiteral).join(", ")})`;
    case "type":
      return typeCheck(check.id);
    case "list":
      return `wire.isList(${inner(check.item)})`;
    case "map":
      return `wire.isRecord({}, {}, ${inner(check.value)})`;
    case "tuple": {
      const rest = check.rest ? `, ${inner(check.rest)}` : "";
      return `wire.isTuple([${check.items.map(inner).join(", ")}], ${String(check.needed)}${rest})`;
    }
    case "record": {
      const rows = (fields: readonly FieldCheck[]): string =>
        fields.length === 0
          ? "{}"
          : `{ ${fields.map(({ name, of }) => `${literalKey(name)}: ${inner(of)}`).join(", ")} }`;
      const given = [rows(check.required), rows(check.optional), ...(check.rest ? [inner(check.rest)] : [])];
      while (given.length > 1 && given.at(-1) === "{}") given.pop();
      return `wire.isRecord(${given.join(", ")})`;
    }
    case "tagged":
      return `wire.isTagged(${quoted(check.field)}, { ${check.rows
        .map(({ value, of }) => `${literalKey(value)}: ${inner(of)}`)
        .join(", ")} })`;
    case "either":
      return `wire.isEither(${check.checks.map(inner).join(", ")})`;
    case "orNull":
      return `wire.orNull(${inner(check.of)})`;
    default:
      return plainChecks[check.kind];
  }
}
