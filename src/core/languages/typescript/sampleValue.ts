import type { Reference, Shape } from "../../contract/model.js";
import { newerTag } from "../../sdk/typePlanner.js";
import { propertyName, quoted } from "./escape.js";
import { convertedLeaf } from "./formats.js";
import { behind, printLiteral, type TypePrinter } from "./printType.js";

const textByFormat: Readonly<Record<string, string>> = {
  date: "2026-05-01",
  "date-time": "2026-05-01T08:30:00Z",
  time: "08:30:00",
  uuid: "0f4a7c1e-2b3d-4e5f-8a9b-0c1d2e3f4a5b",
  email: "skipper@example.test",
  uri: "https://example.test/",
  id: "1",
};
const deepestSample = 5;
const longestSample = 400;
const mostValues = 60;

/** One sample in the making. */
interface Sampling {
  readonly printer: TypePrinter;
  /** Values so far. */
  count: number;
}

/**
 * A literal of a shape, required fields only, for samples in the README; it compiles where the shape is wanted.
 * Undefined when the shape is too large for a sample, or recursive without a way out.
 */
export function sampleOf(reference: Reference, printer: TypePrinter): string | undefined {
  const text = sampleValue(reference, { printer, count: 0 }, 0);
  return text === undefined || text.length > longestSample ? undefined : text;
}

/** Undefined when there is no end to it, or none that anybody would read. */
function sampleValue(reference: Reference, sampling: Sampling, depth: number): string | undefined {
  if (++sampling.count > mostValues) return undefined;
  const shape = behind(reference.shape, sampling.printer);
  if (depth > deepestSample) {
    if (reference.nullable) return "null";
    if (shape.kind === "record" || shape.kind === "union") return undefined;
  }
  return sampleShape(shape, sampling, depth);
}

function sampleShape(shape: Shape, sampling: Sampling, depth: number): string | undefined {
  switch (shape.kind) {
    case "list": {
      if (depth > deepestSample) return "[]";
      const item = sampleValue(shape.item, sampling, depth + 1);
      return item === undefined ? undefined : `[${item}]`;
    }
    case "map":
      return "{}";
    case "tuple": {
      const items = sampleAll(shape.items, sampling, depth);
      return items && `[${items.join(", ")}]`;
    }
    case "union":
      return sampleUnion(shape, sampling, depth);
    case "record": {
      const chosen = shape.oneOf ? shape.fields.slice(0, 1) : shape.fields.filter((field) => field.required);
      const types = chosen.map((field) => field.type);
      const values = sampleAll(types, sampling, depth);
      if (values?.length === 0) return "{}";
      return values && `{ ${chosen.map(({ name }, at) => `${propertyName(name)}: ${values[at] ?? ""}`).join(", ")} }`;
    }
    default:
      return sampleLeaf(shape, sampling.printer);
  }
}

/** A value of a shape that holds no others; undefined where only the app can make one. */
export function sampleLeaf(shape: Shape, printer: TypePrinter): string | undefined {
  const converted = convertedLeaf(shape, printer.formats);
  if (converted) return sampleConverted(converted.type);
  switch (shape.kind) {
    case "text":
      if (shape.format === newerTag) return '"Newer" as unknown as wire.NewerType';
      return quoted(textByFormat[shape.format ?? ""] ?? "text");
    case "integer":
    case "number":
      return String(shape.constraints?.minimum ?? 1);
    case "boolean":
      return "true";
    case "literal":
      return printLiteral(shape.value);
    case "choice":
      return printLiteral(shape.values[0]?.value ?? "");
    case "bytes":
      return 'new Blob(["text"])';
    case "any":
      return sampleScalar((shape.scalar !== undefined && printer.scalars.get(shape.scalar)) || "unknown");
    default:
      return undefined;
  }
}

/** Values of several references; undefined as soon as one has none. */
function sampleAll(references: readonly Reference[], sampling: Sampling, depth: number): string[] | undefined {
  const values: string[] = [];
  for (const reference of references) {
    const value = sampleValue(reference, sampling, depth + 1);
    if (value === undefined) return undefined;
    values.push(value);
  }
  return values;
}

function sampleConverted(type: string): string | undefined {
  if (type === "Date") return 'new Date("2026-05-01T08:30:00Z")';
  if (type === "bigint") return "1n";
  // A type of the app's own; only the app knows how to make one.
  return type === "string" ? quoted("1") : undefined;
}

function sampleScalar(type: string): string {
  if (type === "number") return "1";
  return type === "boolean" ? "true" : quoted("text");
}

function sampleUnion(shape: Shape & { kind: "union" }, sampling: Sampling, depth: number): string | undefined {
  const [first] = shape.members;
  if (!first) return "undefined";
  const sample = sampleValue(first, sampling, depth + 1);
  if (sample === undefined) return undefined;
  const value = shape.tag?.values[0]?.[0];
  if (!shape.tag || value === undefined || !sample.startsWith("{")) return sample;
  const record = behind(first.shape, sampling.printer);
  const said =
    record.kind === "record" && record.fields.find((field) => field.name === shape.tag?.field && field.required);
  const known = said && ["literal", "choice"].includes(behind(said.type.shape, sampling.printer).kind);
  if (known) return sample;
  const rest = sample
    .slice(1, -1)
    .trim()
    .split(/, (?![^{[]*[}\]])/)
    .filter((part) => part !== "" && !part.startsWith(`${propertyName(shape.tag?.field ?? "")}:`));
  return `{ ${[`${propertyName(shape.tag.field)}: ${quoted(value)}`, ...rest].join(", ")} }`;
}
