import type { Reference } from "../../../contract/model.js";
import { sampleOf, type Sample } from "../../../sdk/lower/values/sample.js";
import { propertyName, quoted } from "../names/escape.js";
import { printLiteral, type TypePrinter } from "../types/printType.js";

const longestSample = 400;

/**
 * Returns a literal of a shape with only its required fields, for documentation. It compiles where the shape is
 * expected.
 *
 * @returns undefined if the shape is too large for a sample, recursive without an end, or the app's own
 */
export function sampleText(reference: Reference, printer: TypePrinter): string | undefined {
  const sample = sampleOf(reference, printer.types, printer.settings);
  const text = sample && printSample(sample, printer);
  return text === undefined || text.length > longestSample ? undefined : text;
}

/** Returns a sample as a literal. */
export function printSample(sample: Sample, printer: Pick<TypePrinter, "names" | "scalars">): string {
  switch (sample.kind) {
    case "null":
      return "null";
    case "nothing":
      return "undefined";
    case "newer":
      return '"Newer" as unknown as wire.NewerType';
    case "bytes":
      return 'new Blob(["text"])';
    case "value":
      return printLiteral(sample.value);
    case "decoded":
      if (sample.leaf.kind === "instant") return 'new Date("2026-05-01T08:30:00Z")';
      return sample.leaf.as === "bigint" ? "1n" : quoted("1");
    case "any":
      return scalarText(sample.scalar === undefined ? undefined : printer.scalars.get(sample.scalar));
    case "list":
      return `[${sample.items.map((item) => printSample(item, printer)).join(", ")}]`;
    case "record": {
      const fields = sample.fields.map(({ name, of }) => `${propertyName(name)}: ${printSample(of, printer)}`);
      return fields.length === 0 ? "{}" : `{ ${fields.join(", ")} }`;
    }
    case "built":
      return `${builderName(printer.names.get(sample.id) ?? "")}()`;
    case "member":
      return printSample(sample.of, printer);
    case "tagged":
      return `{ ...${printSample(sample.of, printer)}, ${propertyName(sample.field)}: ${quoted(sample.value)} }`;
  }
}

/** Returns the name of the function that builds samples of a type. */
export function builderName(identifier: string): string {
  return `sample${identifier}`;
}

function scalarText(type: string | undefined): string {
  if (type === "number") return "1";
  return type === "boolean" ? "true" : quoted("text");
}
