import type { Reference, Shape } from "../../../src/core/contract/model.js";
import { resolveShape } from "../../../src/core/contract/resolveShape.js";
import type { FileContext } from "../../../src/core/languages/kotlin/contractContext.js";
import { quoted } from "../../../src/core/languages/kotlin/names/escape.js";
import { spelled } from "../../../src/core/languages/kotlin/names/identifiers.js";
import { memberClassNames, recordNames } from "../../../src/core/languages/kotlin/names/names.js";
import { constant, numberText } from "../../../src/core/languages/kotlin/names/constants.js";
import { fieldState, plainType, printShape } from "../../../src/core/languages/kotlin/types/printType.js";
import type { Data } from "../vectors/vectorRow.js";

type Fields = Readonly<Record<string, Data>>;

/** Returns a value of a row as Kotlin source, with the type of a shape. */
export function kotlinValue(data: Data, reference: Reference, context: FileContext): string {
  const { uses } = context;
  const shape = resolveShape(reference.shape, context.contract.types);
  if (shape.kind === "any" && shape.scalar !== undefined && context.scalars.get(shape.scalar) === "String")
    return quoted(typeof data === "string" ? data : JSON.stringify(data));
  if (shape.kind === "any") return `${uses.wire("parseJson")}(${quoted(JSON.stringify(data))})`;
  if (data === null) return "null";
  const made = ofShape(data, shape, reference, context);
  return reference.shape.kind === "named" && context.wrapped.has(reference.shape.key)
    ? `${printShape(reference.shape, context)}(${made})`
    : made;
}

function ofShape(data: Data, shape: Shape, reference: Reference, context: FileContext): string {
  const { uses } = context;
  const fields = data as Fields;
  switch (shape.kind) {
    case "record":
      return recordText(fields, shape, reference, context);
    case "map":
      return `mapOf(${Object.entries(fields)
        .map(([key, each]) => `${quoted(key)} to ${kotlinValue(each, shape.value, context)}`)
        .join(", ")})`;
    case "list":
      return `listOf(${(data as readonly Data[]).map((each) => kotlinValue(each, shape.item, context)).join(", ")})`;
    case "tuple": {
      const parts = (data as readonly Data[]).map((each, at) =>
        kotlinValue(each, shape.items[at] ?? reference, context),
      );
      return `${printShape(shape, context).replace(/<.*$/, "")}(${parts.join(", ")})`;
    }
    case "choice": {
      const type = plainType(
        shape.values.map(({ value }) => value),
        context,
      );
      return `${printShape(reference.shape, context)}(${constant(data as string, type)})`;
    }
    case "union":
      return unionText(data, shape, reference, context);
    case "bytes": {
      const upload = uses.wire("Upload");
      const bytes = escaped(said(fields, "$bytes") + said(fields, "$stream"));
      if ("$stream" in fields) return `${upload}.from(isOnce = true) { okio.Buffer().writeUtf8(${bytes}) }`;
      uses.other("okio.ByteString.Companion.encodeUtf8");
      const more = ["name", "type"].flatMap((key) =>
        key in fields ? [`, ${key} = ${quoted(said(fields, key))}`] : [],
      );
      return `${upload}.of(${bytes}.encodeUtf8()${more.join("")})`;
    }
    case "integer": {
      const digits = typeof data === "object" ? said(fields, "$integer") : String(data);
      return shape.format === "int32" ? `"${digits}".toInt()` : `"${digits}".toLong()`;
    }
    case "number":
      return numberText(data as number, "Double");
    case "text":
      if (typeof data === "object")
        return `${uses.other("java.time.Instant")}.parse(${quoted(said(fields, "$instant"))})`;
      return quoted(String(data));
    default:
      return typeof data === "string"
        ? quoted(data)
        : typeof data === "number"
          ? numberText(data)
          : JSON.stringify(data);
  }
}

function recordText(
  fields: Fields,
  shape: Shape & { readonly kind: "record" },
  reference: Reference,
  context: FileContext,
): string {
  const names = recordNames(shape);
  const given = shape.fields.flatMap((field) => {
    const data = fields[field.name];
    if (data === undefined) return [];
    const value = kotlinValue(data, field.type, context);
    const isSent = fieldState(field, true, context) === "sent";
    const sent = context.uses.wire("Sent");
    const text = !isSent ? value : data === null ? `${sent}.Null` : `${sent}.Value(${value})`;
    return [`${spelled(names.of(field))} = ${text}`];
  });
  const others = Object.entries(fields).filter(([key]) => !shape.fields.some(({ name }) => name === key));
  const { rest } = shape;
  if (rest && others.length > 0)
    given.push(
      `${names.others} = mapOf(${others.map(([key, data]) => `${quoted(key)} to ${kotlinValue(data, rest, context)}`).join(", ")})`,
    );
  const type = printShape(reference.shape, context);
  return given.length === 0 && shape.fields.length === 0 ? type : `${type}(${given.join(", ")})`;
}

function unionText(
  data: Data,
  shape: Shape & { readonly kind: "union" },
  reference: Reference,
  context: FileContext,
): string {
  const names = memberClassNames(shape, context.contract.types);
  const member = shape.members.find((each, at) => {
    const tag = shape.tag && (data as Fields)[shape.tag.field];
    if (shape.tag) return shape.tag.values[at]?.includes(tag as string) === true;
    const kind = resolveShape(each.shape, context.contract.types).kind;
    return typeof data === "string"
      ? kind === "text"
      : typeof data === "number"
        ? kind === "integer" || kind === "number"
        : kind === "record" || kind === "list";
  });
  if (!member) throw new Error("The value is none of the union's.");
  const value = kotlinValue(data, member, context);
  const isDirect = reference.shape.kind === "named" && context.unions.ids.has(reference.shape.key);
  return isDirect ? value : `${printShape(reference.shape, context)}.${names.get(member) ?? ""}(${value})`;
}

function said(fields: Fields, key: string): string {
  return (fields[key] as string | undefined) ?? "";
}

/** A literal of bytes, with a character for each byte. */
function escaped(text: string): string {
  const codes = Array.from({ length: text.length }, (_, at) => text.charCodeAt(at).toString(16).padStart(4, "0"));
  return `"${codes.map((code) => `\\u${code}`).join("")}"`;
}
