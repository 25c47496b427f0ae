import type { Reference, Shape, UnionShape } from "../../contract/model.js";
import type { PlannedType } from "../../sdk/sdkPlan.js";
import { sortedBy } from "../../text/sortedBy.js";
import { propertyName, quoted } from "./escape.js";
import { usesCheck } from "./formats.js";
import { behind, printLiteral, type TypePrinter } from "./printType.js";

/** Prints the check of every planned type that a server answers with. */
export function printChecks(types: ReadonlyMap<string, PlannedType>, printer: TypePrinter): string {
  const sorted = sortedBy(
    [...types.values()].filter(({ face }) => face !== "request"),
    ({ id }) => printer.names.get(id) ?? id,
  );
  return sorted
    .map((type) => {
      const identifier = printer.names.get(type.id) ?? type.name;
      return `/** Holds a value against \`${identifier}\`. */\nexport const ${checkName(identifier)}: wire.Check = ${checkOfShape(type.shape, printer)};\n`;
    })
    .join("\n");
}

function checkName(identifier: string): string {
  return `check${identifier}`;
}

/** The check of a use of a shape. */
export function checkOf(reference: Reference, printer: TypePrinter): string {
  const check = checkOfShape(reference.shape, printer);
  return reference.nullable && check !== "wire.isAnything" ? `wire.orNull(${check})` : check;
}

function checkOfShape(shape: Shape, printer: TypePrinter): string {
  switch (shape.kind) {
    case "text":
    case "bytes":
      return "wire.isText";
    case "integer":
      return "wire.isInteger";
    case "number":
      return "wire.isNumber";
    case "boolean":
      return "wire.isBoolean";
    case "any":
      return "wire.isAnything";
    case "literal":
      return `wire.isOneOf(${printLiteral(shape.value)})`;
    case "choice":
      return printer.formats.openChoices
        ? openCheck(shape)
        : `wire.isOneOf(${shape.values.map(({ value }) => printLiteral(value)).join(", ")})`;
    case "named": {
      const type = printer.types.get(shape.key);
      if (!type || type.face === "request") return "wire.isAnything";
      const name = checkName(printer.names.get(shape.key) ?? type.name);
      printer.onUse(usesCheck + name);
      return `wire.later(() => ${name})`;
    }
    case "list":
      return `wire.isList(${checkOf(shape.item, printer)})`;
    case "map":
      return `wire.isRecord({}, {}, ${checkOf(shape.value, printer)})`;
    case "tuple": {
      const items = shape.items.map((item) => checkOf(item, printer));
      const rest = shape.rest ? `, ${checkOf(shape.rest, printer)}` : "";
      return `wire.isTuple([${items.join(", ")}], ${String(shape.needed ?? shape.items.length)}${rest})`;
    }
    case "record": {
      const rows = (required: boolean): string => {
        const fields = shape.fields.filter((field) => field.required === required);
        if (fields.length === 0) return "{}";
        return `{ ${fields.map((field) => `${keyText(field.name)}: ${checkOf(field.type, printer)}`).join(", ")} }`;
      };
      const rest = shape.closed ? "wire.isNothing" : shape.rest ? checkOf(shape.rest, printer) : undefined;
      const given = [rows(true), rows(false), ...(rest === undefined ? [] : [rest])];
      while (given.length > 1 && given.at(-1) === "{}") given.pop();
      return `wire.isRecord(${given.join(", ")})`;
    }
    case "union":
      return unionCheck(shape, printer);
  }
}

/** Any value of the kinds that are listed. */
function openCheck(shape: Shape & { kind: "choice" }): string {
  const kinds = [...new Set(shape.values.map(({ value }) => typeof value))].map((kind) =>
    kind === "string" ? "wire.isText" : kind === "number" ? "wire.isNumber" : "wire.isBoolean",
  );
  return kinds.length === 1 ? (kinds[0] ?? "") : `wire.isEither(${kinds.join(", ")})`;
}

/** `__proto__` as a plain key of a literal would set the prototype. */
function keyText(name: string): string {
  return name === "__proto__" ? '["__proto__"]' : propertyName(name);
}

function unionCheck(union: UnionShape, printer: TypePrinter): string {
  const { tag, members } = union;
  if (members.length === 0) return "wire.isNothing";
  const isTagged = tag !== undefined && members.every(({ shape }) => behind(shape, printer).kind === "record");
  const text = isTagged
    ? `wire.isTagged(${quoted(tag.field)}, { ${members
        .flatMap((member, at) =>
          (tag.values[at] ?? []).map((value) => `${keyText(value)}: ${checkOfShape(member.shape, printer)}`),
        )
        .join(", ")} })`
    : `wire.isEither(${members.map(({ shape }) => checkOfShape(shape, printer)).join(", ")})`;
  return members.some(({ nullable }) => nullable) ? `wire.orNull(${text})` : text;
}
