import { sentences } from "../../../sdk/lower/sentences.js";
import type { Field } from "../../../contract/model.js";
import type { LoweredContract } from "../../../sdk/lower/loweredSdk.js";
import type { Sample } from "../../../sdk/lower/values/sample.js";
import { sortedBy } from "../../../text/sortedBy.js";
import { comment, propertyName, quoted } from "../names/escape.js";
import { builderName, printSample } from "./printSample.js";
import type { TypePrinter } from "../types/printType.js";

/** Prints a builder for every record of a contract: its required fields filled, and the fields of the test replaced. */
export function printSamples({ builders }: LoweredContract, printer: TypePrinter): string {
  const sorted = sortedBy(builders, ({ type }) => printer.names.get(type.id) ?? type.name);
  return sorted
    .map(({ type, filled, lacking }) => {
      const identifier = printer.names.get(type.id) ?? type.name;
      printer.uses.type(identifier);
      const text = ({ field, of }: { field: Field; of: Sample }): string =>
        `${propertyName(field.name)}: ${printSample(of, printer)}`;
      const parts = filled.filter(({ field }) => field.deprecated === undefined).map((each) => `    ${text(each)},\n`);
      // In a literal of its own, where no rule warns about deprecated fields.
      const older = filled
        .filter(({ field }) => field.deprecated !== undefined)
        .map((each) => text(each).replace(/: \[\]$/, ": [] as never[]"));
      const before = older.length === 0 ? "" : `  const older = { ${older.join(", ")} } as const;\n`;
      if (older.length > 0) parts.unshift("    ...older,\n");
      const needed = lacking.map((field) => quoted(field.name)).join(" | ");
      const over =
        lacking.length === 0
          ? `over: Partial<${identifier}> = {}`
          : `over: Partial<${identifier}> & Pick<${identifier}, ${needed}>`;
      const doc = comment(sentences.sample(identifier));
      return `${doc}export function ${builderName(identifier)}(${over}): ${identifier} {\n${before}  return {\n${parts.join("")}    ...over,\n  };\n}\n`;
    })
    .join("\n");
}
