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
  const rows = sorted.map((type) => {
    const others = new Set<string>();
    const own = { ...printer, onUse: (name: string) => void others.add(name) };
    const text = checkOfShape(type.shape, own, "of");
    return `  ${propertyName(printer.names.get(type.id) ?? type.name)}: (${others.size > 0 ? "of" : ""}) => ${text},\n`;
  });
  // Constants that name each other would cost the compiler time that grows with the square of their number.
  return rows.length === 0
    ? ""
    : `/** What a server's answers are held against, by the name of their type. */\nexport const checkOf = wire.checksByName({\n${rows.join("")}});\n`;
}

/** The check of a use of a shape. */
export function checkOf(reference: Reference, printer: TypePrinter, by = "checks.checkOf"): string {
  const check = checkOfShape(reference.shape, printer, by);
  return reference.nullable && check !== "wire.isAnything" ? `wire.orNull(${check})` : check;
}

/** @param by the function that knows checks by name, where the text will stand */
function checkOfShape(shape: Shape, printer: TypePrinter, by: string): string {
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
      printer.onUse(usesCheck);
      return `${by}(${quoted(printer.names.get(shape.key) ?? type.name)})`;
    }
    case "list":
      return `wire.isList(${checkOf(shape.item, printer, by)})`;
    case "map":
      return `wire.isRecord({}, {}, ${checkOf(shape.value, printer, by)})`;
    case "tuple": {
      const items = shape.items.map((item) => checkOf(item, printer, by));
      const rest = shape.rest ? `, ${checkOf(shape.rest, printer, by)}` : "";
      return `wire.isTuple([${items.join(", ")}], ${String(shape.needed ?? shape.items.length)}${rest})`;
    }
    case "record": {
      const rows = (required: boolean): string => {
        const fields = shape.fields.filter((field) => field.required === required);
        if (fields.length === 0) return "{}";
        return `{ ${fields.map((field) => `${keyText(field.name)}: ${checkOf(field.type, printer, by)}`).join(", ")} }`;
      };
      const rest = shape.closed ? "wire.isNothing" : shape.rest ? checkOf(shape.rest, printer, by) : undefined;
      const given = [rows(true), rows(false), ...(rest === undefined ? [] : [rest])];
      while (given.length > 1 && given.at(-1) === "{}") given.pop();
      return `wire.isRecord(${given.join(", ")})`;
    }
    case "union":
      return unionCheck(shape, printer, by);
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

function unionCheck(union: UnionShape, printer: TypePrinter, by: string): string {
  const { tag, members } = union;
  if (members.length === 0) return "wire.isNothing";
  const isTagged = tag !== undefined && members.every(({ shape }) => behind(shape, printer).kind === "record");
  const text = isTagged
    ? `wire.isTagged(${quoted(tag.field)}, { ${members
        .flatMap((member, at) =>
          (tag.values[at] ?? []).map((value) => `${keyText(value)}: ${checkOfShape(member.shape, printer, by)}`),
        )
        .join(", ")} })`
    : `wire.isEither(${members.map(({ shape }) => checkOfShape(shape, printer, by)).join(", ")})`;
  return members.some(({ nullable }) => nullable) ? `wire.orNull(${text})` : text;
}
