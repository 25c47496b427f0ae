import type { ChoiceShape, Reference, Shape, UnionShape } from "../../../contract/model.js";
import { resolveShape } from "../../../contract/resolveShape.js";
import { memberOfSample, sampleOf, type Sample } from "../../../sdk/lower/values/sample.js";
import type { FileContext } from "../contractContext.js";
import { quoted } from "../names/escape.js";
import { spelled } from "../names/identifiers.js";
import { constantNames, memberClassNames, recordNames } from "../names/names.js";
import { oneOfText } from "../types/oneOfText.js";
import { numberText } from "../names/constants.js";
import { isOpenChoice } from "../types/printChoice.js";
import { fieldState, inItsClass, printShape } from "../types/printType.js";

const longestSample = 400;

/**
 * Returns a value of a type as source, with only its required fields, for documentation.
 *
 * @returns undefined if the type is too large for a sample, recursive without an end, or the app's own
 */
export function sampleText(reference: Reference, context: FileContext): string | undefined {
  const sample = sampleOf(reference, context.contract.types, context.contract.settings);
  const text = sample && printSample(sample, reference, context);
  return text === undefined || text.length > longestSample ? undefined : text;
}

/** Returns a sample as source of a reference's type. */
export function printSample(sample: Sample, reference: Reference, context: FileContext): string {
  const { types } = context.contract;
  const shape = resolveShape(reference.shape, types);
  if (shape.kind === "union") return unionSample(sample, shape, { reference, context });
  switch (sample.kind) {
    case "null":
    case "nothing":
      return shape.kind === "any" && isJson(sample, context)
        ? context.uses.other("kotlinx.serialization.json.JsonNull")
        : "null";
    case "newer":
      return quoted("Newer");
    case "bytes":
      context.uses.other("okio.ByteString.Companion.encodeUtf8");
      return `${context.uses.wire("Upload")}.of("text".encodeUtf8())`;
    case "decoded":
      return `${context.uses.other("java.time.Instant")}.parse("2026-05-01T08:30:00Z")`;
    case "any":
      return isJson(sample, context)
        ? `${context.uses.other("kotlinx.serialization.json.JsonPrimitive")}("text")`
        : (scalarSamples[(sample.scalar && context.scalars.get(sample.scalar)) ?? ""] ?? quoted("text"));
    case "value":
      return valueText(sample.value, shape, { reference, context });
    case "list":
      return inItsClass(listSample(sample.items, shape, context), reference.shape, context);
    case "record":
      return shape.kind === "record"
        ? recordSample(sample.fields, shape, { reference, context })
        : inItsClass("emptyMap()", reference.shape, context);
    case "built":
      return `${context.names.samples.get(sample.id) ?? ""}()`;
    case "member":
    case "tagged":
      return printSample(sample.of, reference, context);
  }
}

/** Whether a value of any type is JSON in the app. */
function isJson(sample: Sample, { scalars }: FileContext): boolean {
  const scalar = sample.kind === "any" ? sample.scalar : undefined;
  return ((scalar !== undefined && scalars.get(scalar)) || "JsonElement") === "JsonElement";
}

const scalarSamples: Readonly<Record<string, string>> = { Long: "1", Int: "1", Double: "1.5", Boolean: "true" };

function valueText(
  value: string | number | boolean,
  shape: Shape,
  { reference, context }: { readonly reference: Reference; readonly context: FileContext },
): string {
  if (shape.kind === "choice") return choiceText(value, shape, { reference, context });
  if (typeof value === "string") return quoted(value);
  if (typeof value === "boolean") return String(value);
  // An integer literal has whatever type is expected.
  return shape.kind === "number" ? numberText(value, "Double") : String(value);
}

function choiceText(
  value: string | number | boolean,
  choice: ChoiceShape,
  { reference, context }: { readonly reference: Reference; readonly context: FileContext },
): string {
  const type = printShape(reference.shape, context);
  const found = choice.values.find((each) => each.value === value);
  const name = found && constantNames(choice.values).get(found);
  if (name !== undefined) return `${type}.${spelled(name)}`;
  const text = typeof value === "string" ? quoted(value) : String(value);
  return isOpenChoice(choice, context) ? `${type}(${text})` : text;
}

function listSample(items: readonly Sample[], shape: Shape, context: FileContext): string {
  if (shape.kind === "tuple") {
    const given = items.map((item, at) => printSample(item, shape.items[at] ?? { shape, nullable: false }, context));
    const parts = [
      ...given,
      ...shape.items.slice(given.length).map(() => "null"),
      ...(shape.rest ? ["emptyList()"] : []),
    ];
    return `${printShape(shape, context).replace(/<.*$/, "")}(${parts.join(", ")})`;
  }
  if (shape.kind !== "list" || items.length === 0) return "emptyList()";
  return `listOf(${items.map((item) => printSample(item, shape.item, context)).join(", ")})`;
}

function recordSample(
  fields: readonly { readonly name: string; readonly of: Sample }[],
  record: Shape & { readonly kind: "record" },
  { reference, context }: { readonly reference: Reference; readonly context: FileContext },
): string {
  const names = recordNames(record);
  const type = printShape(reference.shape, context);
  if (record.fields.length === 0 && !record.rest) {
    // The type of a fragment is an interface.
    const isPart = reference.shape.kind === "named" && context.fragments.ids.has(reference.shape.key);
    return isPart ? `object : ${type} {}` : type;
  }
  const given = fields.flatMap(({ name, of }) => {
    const field = record.fields.find((each) => each.name === name);
    if (!field) return [];
    const text = printSample(of, field.type, context);
    if (record.oneOf) return [oneOfText(field, { record, type, made: text })];
    return [
      `${spelled(names.of(field))} = ${fieldState(field, true, context) === "sent" ? `${context.uses.wire("sent")}(${text})` : text}`,
    ];
  });
  return record.oneOf ? (given[0] ?? type) : `${type}(${given.join(", ")})`;
}

function unionSample(
  sample: Sample,
  union: UnionShape,
  { reference, context }: { readonly reference: Reference; readonly context: FileContext },
): string {
  const { of, member } = memberOfSample(sample, union);
  if (!member || of.kind === "null" || of.kind === "nothing") return "null";
  const text = printSample(of, member, context);
  if (reference.shape.kind === "named" && context.unions.ids.has(reference.shape.key)) return text;
  return `${printShape(reference.shape, context)}.${memberClassNames(union, context.contract.types).get(member) ?? ""}(${text})`;
}
