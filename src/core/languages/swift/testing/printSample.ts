import type { ChoiceShape, RecordShape, Reference, Shape, UnionShape } from "../../../contract/model.js";
import { resolveShape } from "../../../contract/resolveShape.js";
import { memberOfSample, sampleOf, type Sample } from "../../../sdk/lower/values/sample.js";
import { sortedBy } from "../../../text/sortedBy.js";
import { constant, numberText } from "../names/constants.js";
import type { ContractContext } from "../contractContext.js";
import { quoted } from "../names/escape.js";
import { spelled } from "../names/identifiers.js";
import { constantNames, oneOfCases, recordNames, unionCases } from "../names/names.js";
import { isOpenChoice } from "../types/printChoice.js";
import { fieldState, plainKind, printShape, scalarOf } from "../types/printType.js";

const longestSample = 400;

/**
 * Returns a value of a type as source, with only its required fields, for documentation.
 *
 * @returns undefined if the type is too large for a sample, recursive without an end, or the app's own
 */
export function sampleText(reference: Reference, context: ContractContext): string | undefined {
  const sample = sampleOf(reference, context.contract.types, context.contract.settings);
  const text = sample && printSample(sample, reference, context);
  return text === undefined || text.length > longestSample ? undefined : text;
}

/** Returns a sample as source of a reference's type. */
export function printSample(sample: Sample, reference: Reference, context: ContractContext): string {
  const shape = resolveShape(reference.shape, context.contract.types);
  if (shape.kind === "union") return unionSample(sample, shape, context);
  const text = ofShape(sample, shape, context);
  // An absent value is in no struct.
  return text === "nil" ? text : inWrappers(text, reference.shape, context);
}

function ofShape(sample: Sample, shape: Shape, context: ContractContext): string {
  switch (sample.kind) {
    case "null":
    case "nothing":
      return shape.kind === "any" && scalarOf(shape, context) === "JSON" ? ".null" : "nil";
    case "bytes":
      return '.init(Foundation.Data("text".utf8))';
    case "decoded":
      return "Foundation.Date(timeIntervalSince1970: 1_777_624_200)";
    case "newer":
      return quoted("Newer");
    case "built":
      return ".sample()";
    case "any":
      return shape.kind === "any" ? (scalarSamples[scalarOf(shape, context)] ?? quoted("text")) : quoted("text");
    case "value":
      return valueText(sample.value, shape, context);
    case "list":
      return listSample(sample.items, shape, context);
    case "record":
      return shape.kind === "record" ? recordSample(sample.fields, shape, context) : "[:]";
    case "member":
    case "tagged":
      return ofShape(sample.of, shape, context);
    default:
      return quoted("text");
  }
}

const scalarSamples: Readonly<Record<string, string>> = { Int64: "1", Int32: "1", Double: "1.5", Bool: "true" };

/** Returns a value in the structs of its names, if those are names for something without a type of its own. */
export function inWrappers(text: string, shape: Shape, context: ContractContext): string {
  const names: string[] = [];
  const seen = new Set<string>();
  let found = shape;
  while (found.kind === "named" && !seen.has(found.key)) {
    seen.add(found.key);
    if (context.wrapped.has(found.key)) names.push(printShape(found, context));
    found = context.contract.types.get(found.key)?.shape ?? { kind: "any" };
  }
  return names.reduceRight((inner, name) => `${name}(${inner})`, text);
}

function valueText(value: string | number | boolean, shape: Shape, context: ContractContext): string {
  if (shape.kind === "choice") return choiceText(value, shape, context);
  if (typeof value === "string") return quoted(value);
  if (typeof value === "boolean") return String(value);
  return shape.kind === "number" ? numberText(value, "Double") : String(value);
}

function choiceText(value: string | number | boolean, choice: ChoiceShape, context: ContractContext): string {
  const found = choice.values.find((each) => each.value === value);
  const name = found && constantNames(choice.values).get(found);
  // A deprecated constant is not used inside the SDK.
  if (name !== undefined && found?.deprecated === undefined) return `.${spelled(name)}`;
  const text = constant(value, plainKind(choice.values.map((each) => each.value)));
  return `.init(rawValue: ${text})${isOpenChoice(choice, context) ? "" : "!"}`;
}

function listSample(items: readonly Sample[], shape: Shape, context: ContractContext): string {
  if (shape.kind === "tuple") {
    const given = items.map((item, at) => printSample(item, shape.items[at] ?? { shape, nullable: false }, context));
    const parts = [...given, ...shape.items.slice(given.length).map(() => "nil")].map(
      (part, at) => `part${String(at + 1)}: ${part}`,
    );
    return `.init(${[...parts, ...(shape.rest ? ["rest: []"] : [])].join(", ")})`;
  }
  if (shape.kind !== "list") return "[]";
  return `[${items.map((item) => printSample(item, shape.item, context)).join(", ")}]`;
}

function recordSample(
  fields: readonly { readonly name: string; readonly of: Sample }[],
  record: RecordShape,
  context: ContractContext,
): string {
  const names = recordNames(record);
  const given = fields.flatMap(({ name, of }) => {
    const field = record.fields.find((each) => each.name === name);
    return field ? [{ field, text: printSample(of, field.type, context) }] : [];
  });
  const [first] = given;
  if (record.oneOf && first) return `.${spelled(oneOfCases(record).get(first.field) ?? "")}(${first.text})`;
  const parts = sortedBy(given, ({ field }) => names.of(field)).map(({ field, text }) => {
    const isSent = fieldState(field, true, context) === "sent";
    return `${names.of(field)}: ${isSent ? `.value(${text})` : text}`;
  });
  return `.init(${parts.join(", ")})`;
}

function unionSample(sample: Sample, union: UnionShape, context: ContractContext): string {
  const { of, member } = memberOfSample(sample, union);
  if (!member || of.kind === "null" || of.kind === "nothing") return "nil";
  const text = printSample(of, member, context);
  return `.${spelled(unionCases(union, context.contract.types).get(member) ?? "")}(${text})`;
}
