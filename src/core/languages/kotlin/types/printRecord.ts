import type { Field, RecordShape } from "../../../contract/model.js";
import { resolveShape } from "../../../contract/resolveShape.js";
import { fieldWords, typeWords } from "../../../sdk/lower/documentation.js";
import { sentences } from "../../../sdk/lower/sentences.js";
import type { PlannedType } from "../../../sdk/sdkPlan.js";
import { answerComment } from "../calls/answerComment.js";
import type { FileContext } from "../contractContext.js";
import { deprecation, docComment, quoted } from "../names/escape.js";
import { filledClass, type FilledProperty } from "./filledClass.js";
import { spelled } from "../names/identifiers.js";
import { recordNames } from "../names/names.js";
import { constant } from "../names/constants.js";
import {
  admitsNull,
  fieldState,
  plainType,
  type FieldState,
  printFieldType,
  printForm,
  printReference,
  printShapeForm,
} from "./printType.js";
import { fitsOneMethod } from "../names/slots.js";
import { declaredName, inheritedFields, interfaceFields, spelledInside } from "../names/nestedNames.js";
import { filesOf } from "../filesOf.js";
import { formType, type PrintedClass } from "./printedClass.js";
import { superTypes } from "./superTypes.js";
import { mostTogether, writeMethods } from "./writeMethods.js";
import { chunks } from "../../../text/chunks.js";
import { sortedBy } from "../../../text/sortedBy.js";

/** A property of a record's class. */
interface Property {
  readonly field: Field;
  readonly name: string;
  /** Its name as source, and its JSON name as a literal. */
  readonly spelling: string;
  readonly key: string;
  readonly state: FieldState;
  readonly type: string;
  readonly modifier: "override val" | "public val";
  /** Its default; undefined if it is required. */
  readonly fallback: string | undefined;
}

/** Prints a record: its class, its reader and its writer. */
export function printRecord(type: PlannedType, record: RecordShape, context: FileContext): PrintedClass {
  if (context.fragments.ids.has(type.id)) return printInterface(type, record, context);
  const properties = propertiesOf(type, record, context);
  const isDeprecated = record.fields.some(({ deprecated }) => deprecated !== undefined);
  const declared = fitsOneConstructor(properties, record)
    ? printDataClass(type, record, { properties, context })
    : printFilledClass(type, record, { properties, context });
  const form = printRecordForm(type, record, { properties, context });
  return {
    declared,
    ...(form === "" ? {} : { form }),
    ...(isDeprecated ? { suppresses: deprecations(type, context) } : {}),
  };
}

function deprecations({ id }: PlannedType, context: FileContext): string[] {
  return ["DEPRECATION", ...(inheritedFields(id, context).size > 0 ? ["OVERRIDE_DEPRECATION"] : [])];
}

/** The fields of a fragment, as the interface of all types that spread it. */
function printInterface(type: PlannedType, record: RecordShape, context: FileContext): PrintedClass {
  // Properties that the type's union declares are not repeated.
  const given = new Set((context.unions.of.get(type.id) ?? []).flatMap((id) => interfaceFields(id, context)));
  const own = new Set(interfaceFields(type.id, context).filter((name) => !given.has(name)));
  const properties = propertiesOf(type, record, context).filter(({ field }) => own.has(field.name));
  const lines = sortedBy(properties, ({ name }) => name).map(
    (each) => `${propertyDoc(each)}    ${each.modifier} ${each.spelling}: ${each.type}\n`,
  );
  const body = lines.length === 0 ? "" : ` {\n${lines.join("")}}`;
  const isDeprecated = properties.some(({ field }) => field.deprecated !== undefined);
  return {
    declared: `${answerComment(type, context)}public interface ${declaredName(type.id, context)}${superTypes(type, context)}${body}\n`,
    ...(isDeprecated ? { suppresses: deprecations(type, context) } : {}),
  };
}

function propertiesOf(type: PlannedType, record: RecordShape, context: FileContext): Property[] {
  const names = recordNames(record);
  const isSent = context.directions.get(type.id)?.isWritten === true;
  const inherited = inheritedFields(type.id, context);
  return record.fields.map((field) => {
    const state = fieldState(field, isSent, context);
    const name = names.of(field);
    return {
      field,
      name,
      spelling: spelled(name),
      key: quoted(field.name),
      state,
      type: spelledInside(printFieldType(field, state, context), type.id, { context }),
      modifier: inherited.has(field.name) ? "override val" : "public val",
      fallback: fallbackOf(field, state, context),
    };
  });
}

/** Returns the default of a field as an expression; undefined if it is required. */
export function fallbackOf(field: Field, state: FieldState, context: FileContext): string | undefined {
  switch (state) {
    case "optional":
      return "null";
    case "sent":
      return `${context.uses.wire("Sent")}.Absent`;
    case "required": {
      // A field with only one possible value does not have to be given.
      const shape = resolveShape(field.type.shape, context.contract.types);
      if (shape.kind !== "literal" || admitsNull(field.type, context)) return undefined;
      return constant(shape.value, plainType([shape.value], context));
    }
  }
}

function fitsOneConstructor(properties: readonly Property[], { rest }: RecordShape): boolean {
  return fitsOneMethod([...properties.map(({ type }) => type), ...(rest ? ["Map"] : [])]);
}

function restProperty(record: RecordShape, context: FileContext): FilledProperty[] {
  if (!record.rest) return [];
  const type = `Map<String, ${printReference(record.rest, context)}>`;
  return [
    { doc: `    /** ${sentences.otherKeys} */\n`, name: recordNames(record).others, type, fallback: "emptyMap()" },
  ];
}

function printDataClass(
  type: PlannedType,
  record: RecordShape,
  { properties, context }: { readonly properties: readonly Property[]; readonly context: FileContext },
): string {
  const name = declaredName(type.id, context);
  const doc = docComment(typeWords(type, false));
  const interfaces = superTypes(type, context);
  if (properties.length === 0 && !record.rest) return `${doc}public data object ${name}${interfaces}\n`;
  // Sorted by name, so that neither another order in the contract nor a field that becomes optional moves an argument.
  const lines = sortedBy(properties, (each) => each.name).map((each) => {
    const { modifier, spelling, type: of, fallback } = each;
    return `${propertyDoc(each)}    ${modifier} ${spelling}: ${of}${fallback === undefined ? "" : ` = ${fallback}`},\n`;
  });
  for (const { doc: said, name: rest, type: of, fallback = "" } of restProperty(record, context))
    lines.push(`${said}    public val ${spelled(rest)}: ${of} = ${fallback},\n`);
  return `${doc}public data class ${name}(\n${lines.join("")})${interfaces}\n`;
}

function propertyDoc({ field }: Property): string {
  const { paragraphs, deprecated } = fieldWords(field);
  return docComment({ paragraphs }, "    ") + deprecation(deprecated, "    ");
}

/** A record with more properties than a constructor can take. */
function printFilledClass(
  type: PlannedType,
  record: RecordShape,
  { properties, context }: { readonly properties: readonly Property[]; readonly context: FileContext },
): string {
  const own = sortedBy(properties, ({ name }) => name).map((each): FilledProperty => {
    const fallback = each.fallback ?? (each.type.endsWith("?") ? "null" : undefined);
    const isOverride = each.modifier === "override val";
    return { doc: propertyDoc(each), name: each.name, type: each.type, fallback, isOverride };
  });
  return filledClass(
    {
      name: declaredName(type.id, context),
      words: typeWords(type, false).paragraphs,
      interfaces: superTypes(type, context),
    },
    [...own, ...restProperty(record, context)],
    context,
  );
}

function printRecordForm(
  type: PlannedType,
  record: RecordShape,
  { properties, context }: { readonly properties: readonly Property[]; readonly context: FileContext },
): string {
  const direction = context.forms.get(type.id);
  if (!direction) return "";
  const isSent = context.directions.get(type.id)?.isWritten === true;
  const name = context.names.types.get(type.id) ?? "";
  const parts = [
    ...(direction.isRead ? [printRead(type, record, { properties, context })] : []),
    ...(direction.isWritten ? [printWrite(name, record, { properties, context })] : []),
    ...(isSent && context.filed.has(record) ? printFiles(name, properties, context) : []),
  ];
  const form = context.names.forms.get(type.id) ?? "";
  return `internal object ${form} : ${formType(name, direction, context)} {\n${parts.join("\n")}}\n`;
}

const jsonElement = "kotlinx.serialization.json.JsonElement";

function printRead(
  type: PlannedType,
  record: RecordShape,
  { properties, context }: { readonly properties: readonly Property[]; readonly context: FileContext },
): string {
  const name = context.names.types.get(type.id) ?? "";
  const { uses } = context;
  const json = uses.other(jsonElement);
  const given = [
    // Required fields are checked before others, whatever is read first.
    ...properties.filter(({ field }) => field.required),
    ...properties.filter(({ field }) => !field.required),
  ].map((each) => `${each.spelling} = fields.${readCall(each, context)}`);
  const names = record.rest ? properties.map(({ key }) => key) : [];
  const rest = record.rest
    ? [
        `${recordNames(record).others} = fields.${uses.wire("others")}(${names.length === 0 ? "emptySet()" : "declared"}, ${printForm(record.rest, "read", context)})`,
      ]
    : [];
  const declared = record.rest && names.length > 0 ? `\n    private val declared = ${setOf(names)}\n` : "";
  if (given.length + rest.length === 0)
    return `    override fun read(value: ${json}): ${name} = ${uses.wire("recordOf")}(value).let { ${name} }\n`;
  const start = `    override fun read(value: ${json}): ${name} {\n        val fields = ${uses.wire("recordOf")}(value)\n`;
  if (fitsOneConstructor(properties, record)) {
    const lines = [...given, ...rest].map((line) => `            ${line},\n`);
    return `${start}        return ${name}(\n${lines.join("")}        )\n    }\n${declared}`;
  }
  const groups = chunks([...given, ...rest], mostTogether);
  const object = uses.other("kotlinx.serialization.json.JsonObject");
  const calls = groups.map((_, at) => `            read${String(at)}(fields, this)\n`);
  const functions = groups.map(
    (lines, at) =>
      `\n    private fun read${String(at)}(fields: ${object}, into: ${name}) {\n${lines.map((line) => `        into.${line}\n`).join("")}    }\n`,
  );
  return `${start}        return ${name} {\n${calls.join("")}        }\n    }\n${functions.join("")}${declared}`;
}

function setOf(names: readonly string[]): string {
  return `setOf(${names.join(", ")})`;
}

function readCall({ field, key, state }: Property, context: FileContext): string {
  const { uses } = context;
  if (state === "required") return `${uses.wire(state)}(${key}, ${printForm(field.type, "read", context)})`;
  return `${uses.wire(state)}(${key}, ${printShapeForm(field.type.shape, "read", context)})`;
}

function printWrite(
  name: string,
  record: RecordShape,
  { properties, context }: { readonly properties: readonly Property[]; readonly context: FileContext },
): string {
  const lines = properties.map(({ field, spelling, key, state }) => {
    const form =
      state === "required"
        ? printForm(field.type, "write", context)
        : printShapeForm(field.type.shape, "write", context);
    return `${state}(${key}, value.${spelling}, ${form})\n`;
  });
  if (record.rest)
    lines.push(`others(value.${recordNames(record).others}, ${printForm(record.rest, "write", context)})\n`);
  return writeMethods(name, lines, { context });
}

/** Prints the function that collects the files below a record; nothing if there are none. */
function printFiles(name: string, properties: readonly Property[], context: FileContext): string[] {
  const lines = properties.flatMap(({ field, spelling, state }) => {
    const text = filesOf(field, { value: `value.${spelling}`, isSent: state === "sent" }, context);
    return text === undefined ? [] : [`        ${text}\n`];
  });
  if (lines.length === 0) return [];
  const upload = context.uses.wire("Upload");
  return [`    fun files(value: ${name}): Map<String, ${upload}> = buildMap {\n${lines.join("")}    }\n`];
}
