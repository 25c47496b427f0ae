import type { RecordShape, Reference, Shape, UnionShape } from "../../../contract/model.js";
import { resolveShape } from "../../../contract/resolveShape.js";
import { decodedLeaf } from "../../../sdk/lower/values/decodedLeaf.js";
import { isData } from "../../../text/parseData.js";
import { memberOfValue } from "../../memberOfValue.js";
import { itemsOf, valueText } from "../../valueText.js";
import { numberText } from "../names/constants.js";
import type { FileContext } from "../contractContext.js";
import { quoted } from "../names/escape.js";
import { spelled } from "../names/identifiers.js";
import { constantNames, memberClassNames, recordNames } from "../names/names.js";
import { oneOfText } from "./oneOfText.js";
import { isOpenChoice } from "./printChoice.js";
import { fieldState, inItsClass, printShape } from "./printType.js";

/**
 * Returns a JSON value as source of a reference's type.
 *
 * @param value a value that does not match the type is still written as JSON, so that the compiler reports it
 */
export function printValue(value: unknown, reference: Reference, context: FileContext): string {
  const { types, settings } = context.contract;
  const shape = resolveShape(reference.shape, types);
  if (value === null || value === undefined) return shape.kind === "any" ? json("null", context) : "null";
  const leaf = decodedLeaf(shape, settings);
  if (leaf?.kind === "instant") return `${context.uses.other("java.time.Instant")}.parse(${quoted(valueText(value))})`;
  if (leaf?.kind === "own") {
    const own = context.formats[leaf.format];
    return own ? `${context.uses.own(own.decode)}(${quoted(valueText(value))})` : quoted(valueText(value));
  }
  return inItsClass(ofShape(value, shape, { reference, context }), reference.shape, context);
}

function ofShape(
  value: unknown,
  shape: Shape,
  { reference, context }: { readonly reference: Reference; readonly context: FileContext },
): string {
  switch (shape.kind) {
    case "record":
      return isData(value) ? recordText(value, shape, { reference, context }) : json(JSON.stringify(value), context);
    case "map":
      return `mapOf(${Object.entries(isData(value) ? value : {})
        .map(([key, each]) => `${quoted(key)} to ${printValue(each, shape.value, context)}`)
        .join(", ")})`;
    case "list":
      return `listOf(${itemsOf(value)
        .map((each) => printValue(each, shape.item, context))
        .join(", ")})`;
    case "tuple": {
      const given = itemsOf(value);
      const parts = shape.items.map((item, at) => (at < given.length ? printValue(given[at], item, context) : "null"));
      const { rest } = shape;
      if (rest) {
        const more = given.slice(shape.items.length).map((each) => printValue(each, rest, context));
        parts.push(`listOf(${more.join(", ")})`);
      }
      return `${printShape(shape, context).replace(/<.*$/, "")}(${parts.join(", ")})`;
    }
    case "union":
      return unionText(value, shape, { reference, context });
    case "choice": {
      const type = printShape(reference.shape, context);
      const found = shape.values.find((each) => each.value === value);
      const name = found && constantNames(shape.values).get(found);
      if (name !== undefined) return `${type}.${spelled(name)}`;
      return isOpenChoice(shape, context) ? `${type}(${plain(value)})` : plain(value);
    }
    case "bytes":
      context.uses.other("okio.ByteString.Companion.encodeUtf8");
      return `${context.uses.wire("Upload")}.of(${quoted(typeof value === "string" ? value : "…")}.encodeUtf8())`;
    case "number":
      return typeof value === "number" ? numberText(value, "Double") : plain(value);
    case "any": {
      const scalar = shape.scalar === undefined ? undefined : context.scalars.get(shape.scalar);
      return scalar === undefined || scalar === "JsonElement" ? json(JSON.stringify(value), context) : plain(value);
    }
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
function json(value: string, { uses }: FileContext): string {
  return `${uses.other("kotlinx.serialization.json.Json")}.parseToJsonElement(${quoted(value)})`;
}

function recordText(
  value: Readonly<Record<string, unknown>>,
  record: RecordShape,
  { reference, context }: { readonly reference: Reference; readonly context: FileContext },
): string {
  const names = recordNames(record);
  const type = printShape(reference.shape, context);
  if (record.oneOf) {
    const [chosen] = record.fields.filter(({ name }) => Object.hasOwn(value, name));
    if (!chosen) return json(JSON.stringify(value), context);
    return oneOfText(chosen, { record, type, made: printValue(value[chosen.name], chosen.type, context) });
  }
  const given = record.fields.flatMap((field) => {
    if (!Object.hasOwn(value, field.name)) return [];
    const made = printValue(value[field.name], field.type, context);
    const isSent = fieldState(field, true, context) === "sent";
    return [`${spelled(names.of(field))} = ${isSent ? `${context.uses.wire("sent")}(${made})` : made}`];
  });
  const { rest } = record;
  const others = Object.entries(value).filter(([key]) => !record.fields.some(({ name }) => name === key));
  if (rest && others.length > 0)
    given.push(
      `${names.others} = mapOf(${others.map(([key, each]) => `${quoted(key)} to ${printValue(each, rest, context)}`).join(", ")})`,
    );
  return record.fields.length === 0 && !rest ? type : `${type}(${given.join(", ")})`;
}

function unionText(
  value: unknown,
  union: UnionShape,
  { reference, context }: { readonly reference: Reference; readonly context: FileContext },
): string {
  const member = memberOfValue(value, union, context.contract.types);
  if (!member) return json(JSON.stringify(value), context);
  const made = printValue(value, member, context);
  if (reference.shape.kind === "named" && context.unions.ids.has(reference.shape.key)) return made;
  return `${printShape(reference.shape, context)}.${memberClassNames(union, context.contract.types).get(member) ?? ""}(${made})`;
}
