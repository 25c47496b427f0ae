import type { Field, RecordShape } from "../../../contract/model.js";
import type { SampleBuilder } from "../../../sdk/lower/values/sampleBuilders.js";
import { sentences } from "../../../sdk/lower/sentences.js";
import { sortedBy } from "../../../text/sortedBy.js";
import type { ContractContext } from "../contractContext.js";
import { comment } from "../names/escape.js";
import { spelled } from "../names/identifiers.js";
import { recordNames } from "../names/names.js";
import { typeName } from "../types/printedType.js";
import { fallbackOf } from "../types/printRecord.js";
import { printSample } from "./printSample.js";
import { fieldState, printFieldType, printReference } from "../types/printType.js";
import { listed } from "../swiftFile.js";

/** Prints a function for each record that creates a sample, with the fields of a test replaced. */
export function printSamples(context: ContractContext): string[] {
  return context.contract.builders.flatMap((builder) => {
    const { type } = builder;
    return type.shape.kind === "record" ? [printBuilder(builder, type.shape, context)] : [];
  });
}

function printBuilder(builder: SampleBuilder, record: RecordShape, context: ContractContext): string {
  const names = recordNames(record);
  const name = typeName(builder.type.id, context);
  const parameters = parametersOf(builder, record, context);
  if (record.rest)
    parameters.push({
      name: names.others,
      type: `[Swift.String: ${printReference(record.rest, context)}]`,
      value: "[:]",
    });
  const labels = parameters.map(
    (each) => `${spelled(each.name)}: ${each.type}${each.value === undefined ? "" : ` = ${each.value}`}`,
  );
  const given = parameters.map((each) => `${each.name}: ${spelled(each.name)}`);
  return (
    `extension ${name} {\n${comment("  ", sentences.sample(name))}` +
    `${listed(`  ${context.access}static func sample`, labels, ` -> ${name} {`)}\n${listed("    .init", given, "")}\n  }\n}\n`
  );
}

interface SampleParameter {
  readonly name: string;
  readonly type: string;
  /** Its default; undefined if only the test can give it. */
  readonly value: string | undefined;
}

function parametersOf(
  { type, filled, lacking }: SampleBuilder,
  record: RecordShape,
  context: ContractContext,
): SampleParameter[] {
  const names = recordNames(record);
  const isSent = context.directions.get(type.id)?.isWritten === true;
  const samples = new Map(filled.map(({ field, of }) => [field, of]));
  const valueOf = (field: Field): string | undefined => {
    const sample = samples.get(field);
    if (sample) return printSample(sample, field.type, context);
    return lacking.includes(field) ? undefined : fallbackOf(field, fieldState(field, isSent, context), context);
  };
  const all = record.fields.map((field) => ({
    name: names.of(field),
    type: printFieldType(field, fieldState(field, isSent, context), context),
    value: valueOf(field),
  }));
  return sortedBy(all, ({ name }) => name);
}
