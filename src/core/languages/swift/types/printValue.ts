import type { RecordShape, Reference, Shape, UnionShape } from "../../../contract/model.js";
import { resolveShape } from "../../../contract/resolveShape.js";
import { decodedLeaf } from "../../../sdk/lower/values/decodedLeaf.js";
import { isData } from "../../../text/parseData.js";
import { sortedBy } from "../../../text/sortedBy.js";
import { memberOfValue } from "../../memberOfValue.js";
import { itemsOf, valueText } from "../../valueText.js";
import { numberText } from "../names/constants.js";
import type { ContractContext } from "../contractContext.js";
import { quoted } from "../names/escape.js";
import { spelled } from "../names/identifiers.js";
import { constantNames, oneOfCases, recordNames, unionCases } from "../names/names.js";
import { isOpenChoice } from "./printChoice.js";
import { formatMembers, formatName } from "./printFormats.js";
import { inWrappers } from "../testing/printSample.js";
import { fieldState, printShape, scalarOf } from "./printType.js";

/**
 * Returns a JSON value as source of a reference's type. The source can throw.
 *
 * @param value a value that does not match the type is still written as JSON, so that the compiler reports it
 */
export function printValue(value: unknown, reference: Reference, context: ContractContext): string {
  const { types, settings } = context.contract;
  const shape = resolveShape(reference.shape, types);
  if (value === null || value === undefined)
    return shape.kind === "any" && scalarOf(shape, context) === "JSON" ? ".null" : "nil";
  const leaf = decodedLeaf(shape, settings);
  if (leaf?.kind === "instant") return `try ${context.wire}.readDate(.text(${quoted(valueText(value))}))`;
  if (leaf?.kind === "own") {
    const { decode } = formatMembers(leaf.format, context);
    return `try ${formatName(leaf.format, context)}.${decode}(${quoted(valueText(value))})`;
  }
  return inWrappers(ofShape(value, shape, { reference, context }), reference.shape, context);
}

function ofShape(
  value: unknown,
  shape: Shape,
  { reference, context }: { readonly reference: Reference; readonly context: ContractContext },
): string {
  switch (shape.kind) {
    case "record":
      return isData(value) ? recordText(value, shape, context) : json(value, context);
    case "map": {
      const rows = Object.entries(isData(value) ? value : {}).map(
        ([key, each]) => `${quoted(key)}: ${printValue(each, shape.value, context)}`,
      );
      return `[${rows.length === 0 ? ":" : rows.join(", ")}]`;
    }
    case "list":
      return `[${itemsOf(value)
        .map((each) => printValue(each, shape.item, context))
        .join(", ")}]`;
    case "tuple": {
      const given = itemsOf(value);
      const parts = shape.items.map(
        (item, at) => `part${String(at + 1)}: ${at < given.length ? printValue(given[at], item, context) : "nil"}`,
      );
      const { rest } = shape;
      if (rest) {
        const more = given.slice(shape.items.length).map((each) => printValue(each, rest, context));
        parts.push(`rest: [${more.join(", ")}]`);
      }
      return `${printShape(shape, context)}(${parts.join(", ")})`;
    }
    case "union":
      return unionText(value, shape, { reference, context });
    case "choice": {
      const found = shape.values.find((each) => each.value === value);
      const name = found && constantNames(shape.values).get(found);
      if (name !== undefined) return `.${spelled(name)}`;
      return isOpenChoice(shape, context) ? `.init(rawValue: ${plain(value)})` : plain(value);
    }
    case "bytes":
      return `.init(Foundation.Data(${quoted(typeof value === "string" ? value : "…")}.utf8))`;
    case "number":
      return typeof value === "number" ? numberText(value, "Double") : plain(value);
    case "any":
      return scalarOf(shape, context) === "JSON" ? json(value, context) : plain(value);
    case "text":
      return quoted(valueText(value));
    default:
      return plain(value);
  }
}

function plain(value: unknown): string {
  return typeof value === "number" || typeof value === "boolean" ? String(value) : quoted(valueText(value));
}

/** Any JSON, which is parsed at run time. */
function json(value: unknown, { wire }: ContractContext): string {
  return `try ${wire}.parseJSON(${quoted(JSON.stringify(value))}.utf8)`;
}

function recordText(value: Readonly<Record<string, unknown>>, record: RecordShape, context: ContractContext): string {
  const names = recordNames(record);
  if (record.oneOf) {
    const [chosen] = record.fields.filter(({ name }) => Object.hasOwn(value, name));
    if (!chosen) return json(value, context);
    return `.${spelled(oneOfCases(record).get(chosen) ?? "")}(${printValue(value[chosen.name], chosen.type, context)})`;
  }
  const given = sortedBy(record.fields, names.of).flatMap((field) => {
    if (!Object.hasOwn(value, field.name)) return [];
    const own = value[field.name];
    const made = printValue(own, field.type, context);
    const isSent = fieldState(field, true, context) === "sent";
    return [`${names.of(field)}: ${!isSent ? made : own === null ? ".null" : `.value(${made})`}`];
  });
  const { rest } = record;
  const others = Object.entries(value).filter(([key]) => !record.fields.some(({ name }) => name === key));
  if (rest && others.length > 0)
    given.push(
      `${names.others}: [${others.map(([key, each]) => `${quoted(key)}: ${printValue(each, rest, context)}`).join(", ")}]`,
    );
  return `.init(${given.join(", ")})`;
}

function unionText(
  value: unknown,
  union: UnionShape,
  { reference, context }: { readonly reference: Reference; readonly context: ContractContext },
): string {
  const member = memberOfValue(value, union, context.contract.types);
  if (!member) return json(value, context);
  const name = spelled(unionCases(union, context.contract.types).get(member) ?? "");
  // The case determines the type of the member, and the type of the union determines the case.
  return `${printShape(reference.shape, context)}.${name}(${printValue(value, member, context)})`;
}
