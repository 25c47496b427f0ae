import type { RecordShape, Reference, Shape, UnionShape } from "../../../src/core/contract/model.js";
import { resolveShape } from "../../../src/core/contract/resolveShape.js";
import { constant, numberText } from "../../../src/core/languages/swift/names/constants.js";
import type { ContractContext } from "../../../src/core/languages/swift/contractContext.js";
import { quoted } from "../../../src/core/languages/swift/names/escape.js";
import { spelled } from "../../../src/core/languages/swift/names/identifiers.js";
import { recordNames, unionCases } from "../../../src/core/languages/swift/names/names.js";
import { fieldState, plainKind, printShape, scalarOf } from "../../../src/core/languages/swift/types/printType.js";
import { sortedBy } from "../../../src/core/text/sortedBy.js";
import type { Data } from "../vectors/vectorRow.js";

type Fields = Readonly<Record<string, Data>>;

/** Returns a value of a row as Swift source, with the type of a shape. */
export function swiftValue(data: Data, reference: Reference, context: ContractContext): string {
  const shape = resolveShape(reference.shape, context.contract.types);
  if (shape.kind === "any" && scalarOf(shape, context) === "String")
    return quoted(typeof data === "string" ? data : JSON.stringify(data));
  if (shape.kind === "any") return `try ${context.wire}.parseJSON(${quoted(JSON.stringify(data))}.utf8)`;
  if (data === null) return "nil";
  const made = ofShape(data, shape, reference, context);
  return reference.shape.kind === "named" && context.wrapped.has(reference.shape.key)
    ? `${printShape(reference.shape, context)}(${made})`
    : made;
}

function ofShape(data: Data, shape: Shape, reference: Reference, context: ContractContext): string {
  const { wire } = context;
  const fields = data as Fields;
  switch (shape.kind) {
    case "record":
      return recordText(fields, shape, reference, context);
    case "map": {
      const rows = Object.entries(fields).map(
        ([key, each]) => `${quoted(key)}: ${swiftValue(each, shape.value, context)}`,
      );
      return `[${rows.length === 0 ? ":" : rows.join(", ")}]`;
    }
    case "list":
      return `[${(data as readonly Data[]).map((each) => swiftValue(each, shape.item, context)).join(", ")}]`;
    case "tuple": {
      const parts = (data as readonly Data[]).map(
        (each, at) => `part${String(at + 1)}: ${swiftValue(each, shape.items[at] ?? reference, context)}`,
      );
      return `${printShape(shape, context)}(${parts.join(", ")})`;
    }
    case "choice": {
      const kind = plainKind(shape.values.map(({ value }) => value));
      return `${printShape(reference.shape, context)}(rawValue: ${constant(data as string, kind)})`;
    }
    case "union":
      return unionText(data, shape, reference, context);
    case "bytes": {
      // Each character of a row is a byte.
      const text = said(fields, "$bytes") + said(fields, "$stream");
      const codes = Array.from({ length: text.length }, (_, at) => String(text.charCodeAt(at)));
      const bytes = `Foundation.Data([${codes.join(", ")}])`;
      const more = ["name", "type"].flatMap((key) => (key in fields ? [`, ${key}: ${quoted(said(fields, key))}`] : []));
      return `${wire}.Upload(${bytes}${more.join("")})`;
    }
    case "integer":
      return typeof data === "object" ? said(fields, "$integer") : String(data);
    case "number":
      return numberText(data as number, "Double");
    case "text":
      if (typeof data === "object") return `try ${wire}.readDate(.text(${quoted(said(fields, "$instant"))}))`;
      return quoted(String(data));
    default:
      return typeof data === "string" ? quoted(data) : JSON.stringify(data);
  }
}

function recordText(fields: Fields, shape: RecordShape, reference: Reference, context: ContractContext): string {
  const names = recordNames(shape);
  const given = sortedBy(shape.fields, names.of).flatMap((field) => {
    const data = fields[field.name];
    if (data === undefined) return [];
    const value = swiftValue(data, field.type, context);
    const isSent = fieldState(field, true, context) === "sent";
    return [`${names.of(field)}: ${!isSent ? value : data === null ? ".null" : `.value(${value})`}`];
  });
  const others = Object.entries(fields).filter(([key]) => !shape.fields.some(({ name }) => name === key));
  const { rest } = shape;
  if (rest && others.length > 0)
    given.push(
      `${names.others}: [${others.map(([key, data]) => `${quoted(key)}: ${swiftValue(data, rest, context)}`).join(", ")}]`,
    );
  return `${printShape(reference.shape, context)}(${given.join(", ")})`;
}

function unionText(data: Data, shape: UnionShape, reference: Reference, context: ContractContext): string {
  const names = unionCases(shape, context.contract.types);
  const member = shape.members.find((each, at) => {
    if (shape.tag) return shape.tag.values[at]?.includes((data as Fields)[shape.tag.field] as string) === true;
    const kind = resolveShape(each.shape, context.contract.types).kind;
    return typeof data === "string"
      ? kind === "text"
      : typeof data === "number"
        ? kind === "integer" || kind === "number"
        : kind === "record" || kind === "list";
  });
  if (!member) throw new Error("The value is none of the union's.");
  return `${printShape(reference.shape, context)}.${spelled(names.get(member) ?? "")}(${swiftValue(data, member, context)})`;
}

function said(fields: Fields, key: string): string {
  return (fields[key] as string | undefined) ?? "";
}
