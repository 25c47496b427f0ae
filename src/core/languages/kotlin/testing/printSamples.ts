import type { Field, RecordShape } from "../../../contract/model.js";
import type { SampleBuilder } from "../../../sdk/lower/values/sampleBuilders.js";
import { sentences } from "../../../sdk/lower/sentences.js";
import { sortedBy } from "../../../text/sortedBy.js";
import type { FileContext } from "../contractContext.js";
import { comment } from "../names/escape.js";
import { spelled } from "../names/identifiers.js";
import { recordNames } from "../names/names.js";
import { inheritedFields, interfaceFields } from "../names/nestedNames.js";
import { fallbackOf } from "../types/printRecord.js";
import { printSample } from "./printSample.js";
import { fieldState, printFieldType, printReference } from "../types/printType.js";
import { fitsOneMethod } from "../names/slots.js";

/** Prints a function for each record that creates a sample, with the fields of a test replaced. */
export function printSamples(context: FileContext): string[] {
  return context.contract.builders.flatMap((builder) => printBuilder(builder, context));
}

function printBuilder(builder: SampleBuilder, context: FileContext): string[] {
  const { type } = builder;
  if (type.shape.kind !== "record") return [];
  const record = type.shape;
  const isPart = context.fragments.ids.has(type.id);
  const parameters = parametersOf(builder, record, context);
  const name = context.names.types.get(type.id) ?? "";
  const sample = context.names.samples.get(type.id) ?? "";
  const doc = comment(sentences.sample(name));
  if (isPart) return printPart(builder, parameters, context);
  const rest = record.rest ? [`Map<String, ${printReference(record.rest, context)}>`] : [];
  if (!fitsOneMethod([...parameters.map(({ of }) => of), ...rest])) {
    const lines = parameters.flatMap(({ property, value, field }) =>
      field.required && value !== undefined ? [`        ${spelled(property)} = ${value}\n`] : [],
    );
    return [
      `${doc}public fun ${sample}(fill: ${name}.() -> Unit = {}): ${name} =\n    ${name} {\n${lines.join("")}        fill()\n    }\n`,
    ];
  }
  const others = rest.map((of) => ({ property: recordNames(record).others, of, value: "emptyMap()" }));
  const all = [...parameters, ...others];
  const declared = all.map(
    ({ property, of, value }) => `    ${spelled(property)}: ${of}${value === undefined ? "" : ` = ${value}`},\n`,
  );
  const given = all.map(({ property }) => `        ${spelled(property)} = ${spelled(property)},\n`);
  return [`${doc}public fun ${sample}(\n${declared.join("")}): ${name} =\n    ${name}(\n${given.join("")}    )\n`];
}

interface SampleParameter {
  readonly field: Field;
  readonly property: string;
  readonly of: string;
  /** Its default; undefined if only the test can give it. */
  readonly value: string | undefined;
}

function parametersOf(
  { type, filled, lacking }: SampleBuilder,
  record: RecordShape,
  context: FileContext,
): SampleParameter[] {
  const names = recordNames(record);
  const isSent = context.directions.get(type.id)?.isWritten === true;
  const samples = new Map(filled.map(({ field, of }) => [field, of]));
  const shown = context.fragments.ids.has(type.id) ? partFields(type.id, record, context) : record.fields;
  const all = shown.map((field): SampleParameter => {
    const sample = samples.get(field);
    const state = fieldState(field, isSent, context);
    const value = sample
      ? printSample(sample, field.type, context)
      : lacking.includes(field)
        ? undefined
        : fallbackOf(field, state, context);
    return { field, property: names.of(field), of: printFieldType(field, state, context), value };
  });
  return sortedBy(all, ({ property }) => property);
}

/** The fields of a fragment's interface, with the name of a type only if it has that field. */
function partFields(id: string, record: RecordShape, context: FileContext): readonly Field[] {
  const own = new Set([...interfaceFields(id, context), ...inheritedFields(id, context)]);
  return record.fields.filter(({ name }) => own.has(name));
}

/** A fragment's interface needs a class for samples of it. */
function printPart({ type }: SampleBuilder, parameters: readonly SampleParameter[], context: FileContext): string[] {
  const name = context.names.types.get(type.id) ?? "";
  const sample = context.names.samples.get(type.id) ?? "";
  const behind = `${sample.charAt(0).toUpperCase()}${sample.slice(1)}`;
  const doc = comment(sentences.sample(name));
  if (parameters.length === 0)
    return [`${doc}public fun ${sample}(): ${name} = ${behind}\n`, `private data object ${behind} : ${name}\n`];
  const declared = parameters.map(
    ({ property, of, value }) => `    ${spelled(property)}: ${of}${value === undefined ? "" : ` = ${value}`},\n`,
  );
  const given = parameters.map(({ property }) => `        ${spelled(property)} = ${spelled(property)},\n`);
  const properties = parameters.map(({ property, of }) => `    override val ${spelled(property)}: ${of},\n`);
  return [
    `${doc}public fun ${sample}(\n${declared.join("")}): ${name} =\n    ${behind}(\n${given.join("")}    )\n`,
    `private data class ${behind}(\n${properties.join("")}) : ${name}\n`,
  ];
}
