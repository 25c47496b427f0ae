import { storedName } from "./storedName.js";
import type { Field, RecordShape, Reference } from "../../../contract/model.js";
import { resolveShape } from "../../../contract/resolveShape.js";
import { fieldWords, typeWords } from "../../../sdk/lower/documentation.js";
import { sentences } from "../../../sdk/lower/sentences.js";
import type { PlannedType } from "../../../sdk/sdkPlan.js";
import { sortedBy } from "../../../text/sortedBy.js";
import { constant } from "../names/constants.js";
import type { ContractContext } from "../contractContext.js";
import { deprecation, docComment, quoted } from "../names/escape.js";
import { printViews } from "./printViews.js";
import { filesOf } from "../filesOf.js";
import { freeName } from "../names/freeName.js";
import { spelled } from "../names/identifiers.js";
import { recordNames } from "../names/names.js";
import { declaredName, typeName, type PrintedType } from "./printedType.js";
import {
  admitsNull,
  fieldState,
  plainKind,
  printFieldType,
  printForm,
  printReference,
  printShapeForm,
  type FieldState,
} from "./printType.js";
import { listed } from "../swiftFile.js";

/** A property of a record's struct. */
interface Property {
  readonly field: Field;
  readonly name: string;
  /** Its name as source, and its JSON name as a literal. */
  readonly spelling: string;
  readonly key: string;
  /** The name of the stored property, if that is not the property itself. */
  readonly stored: string;
  readonly state: FieldState;
  readonly type: string;
  /** Its default; undefined if it is required. */
  readonly fallback: string | undefined;
  readonly isBoxed: boolean;
  readonly deprecated: string | undefined;
}

/** A record with its properties. */
interface RecordParts {
  readonly type: PlannedType;
  readonly record: RecordShape;
  /** In the contract's order. */
  readonly properties: readonly Property[];
  /** Sorted by name, so that neither another order in the contract nor a field that becomes optional moves a label. */
  readonly sorted: readonly Property[];
}

/** Prints a record: its struct, its reader and its writer. */
export function printRecord(type: PlannedType, record: RecordShape, context: ContractContext): PrintedType {
  const properties = propertiesOf(type, record, context);
  const parts = { type, record, properties, sorted: sortedBy(properties, ({ name }) => name) };
  return { declared: printStruct(parts, context), forms: printForms(parts, context) };
}

function propertiesOf(type: PlannedType, record: RecordShape, context: ContractContext): Property[] {
  const names = recordNames(record);
  const isSent = context.directions.get(type.id)?.isWritten === true;
  return record.fields.map((field) => {
    const state = fieldState(field, isSent, context);
    const name = names.of(field);
    return {
      field,
      name,
      spelling: spelled(name),
      key: quoted(field.name),
      stored: storedName(name, field),
      state,
      type: printFieldType(field, state, context),
      fallback: fallbackOf(field, state, context),
      isBoxed: context.boxed.fields.has(field),
      deprecated: field.deprecated,
    };
  });
}

/** Returns the default of a field as an expression; undefined if it is required. */
export function fallbackOf(field: Field, state: FieldState, context: ContractContext): string | undefined {
  switch (state) {
    case "optional":
      return "nil";
    case "sent":
      return ".absent";
    case "required": {
      // A field with only one possible value does not have to be given.
      const shape = resolveShape(field.type.shape, context.contract.types);
      if (shape.kind !== "literal" || admitsNull(field.type, context)) return undefined;
      return constant(shape.value, plainKind([shape.value]));
    }
  }
}

function printStruct({ type, record, sorted }: RecordParts, context: ContractContext): string {
  const { access } = context;
  const isUsual = hasUsualInit(sorted, access);
  const lines = sorted.map((each) => printProperty(each, isUsual, context));
  if (record.rest)
    lines.push(
      `  /// ${sentences.otherKeys}\n  ${access}var ${spelled(recordNames(record).others)}: ${othersType(record.rest, context)}${isUsual ? " = [:]" : ""}\n`,
    );
  const made = isUsual ? "" : printInit(sorted, record, context);
  const body = [lines.join(""), made, ...printViews(type, context)].filter((each) => each !== "").join("\n");
  return `${docComment(typeWords(type, false))}${access}struct ${declaredName(type.id, context)}: Swift.Hashable, Swift.Sendable {\n${body}}\n`;
}

function othersType(rest: Reference, context: ContractContext): string {
  return `[Swift.String: ${printReference(rest, context)}]`;
}

/** Whether the initialiser is the compiler's own, which only the module can use. */
function hasUsualInit(properties: readonly Property[], access: string): boolean {
  return access === "" && properties.every(({ name, stored }) => stored === name);
}

/** Whether the compiler sets a required property to nil on its own. It does not if the type is written in full. */
function startsAsNil({ type, fallback, isBoxed }: Pick<Property, "type" | "fallback" | "isBoxed">): boolean {
  return fallback === undefined && type.endsWith("?") && !isBoxed;
}

function printInit(sorted: readonly Property[], record: RecordShape, context: ContractContext): string {
  const { access } = context;
  const labels = sorted.map(({ spelling, type: of, fallback }) => `${spelling}: ${of}${orFallback(fallback)}`);
  const sets = sorted.map(({ spelling, stored }) => `    self.${spelled(stored)} = ${spelling}\n`);
  if (record.rest) {
    const others = spelled(recordNames(record).others);
    labels.push(`${others}: ${othersType(record.rest, context)} = [:]`);
    sets.push(`    self.${others} = ${others}\n`);
  }
  if (sets.length === 0) return `  ${access}init() {}\n`;
  return `${listed(`  ${access}init`, labels, " {")}\n${sets.join("")}  }\n`;
}

function orFallback(fallback: string | undefined): string {
  return fallback === undefined ? "" : ` = ${fallback}`;
}

/** @param isUsual whether the compiler creates the initialiser, and therefore needs the defaults */
function printProperty(property: Property, isUsual: boolean, { access, wire }: ContractContext): string {
  const { field, name, spelling, stored, type, fallback, isBoxed, deprecated } = property;
  const { paragraphs } = fieldWords(field);
  const start = `${docComment({ paragraphs }, "  ")}${deprecation(deprecated, "  ")}  `;
  const box = isBoxed ? `@${wire}.Box ` : "";
  // The compiler knows that an optional begins as nil, but not that a boxed one does.
  const first = isUsual && (fallback !== "nil" || isBoxed) ? orFallback(fallback) : "";
  const declared = isUsual && startsAsNil(property) ? `Swift.Optional<${type.slice(0, -"?".length)}>` : type;
  if (stored === name) return `${start}${box}${access}var ${spelling}: ${declared}${first}\n`;
  return `${start}${access}var ${spelling}: ${type} {\n    get { ${spelled(stored)} }\n    set { ${spelled(stored)} = newValue }\n  }\n  ${box}fileprivate var ${spelled(stored)}: ${type}\n`;
}

function printForms(parts: RecordParts, context: ContractContext): string[] {
  const { type } = parts;
  const direction = context.forms.get(type.id);
  if (!direction) return [];
  const isSent = context.directions.get(type.id)?.isWritten === true;
  return [
    ...(direction.isRead ? [printRead(parts, context)] : []),
    ...(direction.isWritten ? [printWrite(parts, context)] : []),
    ...(isSent && context.filed.has(parts.record) ? printFiles(parts, context) : []),
  ];
}

function printRead({ type, record, properties, sorted }: RecordParts, context: ContractContext): string {
  const { wire } = context;
  const name = typeName(type.id, context);
  const flat = context.names.flat.get(type.id) ?? "";
  const own = properties.map((each) => each.name);
  if (record.rest) own.push(recordNames(record).others);
  const json = freeName("json", own);
  const fields = freeName("fields", own);
  // Required fields are checked before others, whatever is read first.
  const inOrder = [
    ...properties.filter(({ field }) => field.required),
    ...properties.filter(({ field }) => !field.required),
  ];
  const asks = ` = try ${fields}.`;
  const reads = inOrder.map(
    (each) => `  let ${each.spelling}${asks}${each.state}(${each.key}, ${readForm(each, context)})\n`,
  );
  const given = sorted.map((each) => `${each.name}: ${each.spelling}`);
  if (record.rest) {
    const others = recordNames(record).others;
    const declared = record.fields.map((field) => quoted(field.name));
    reads.push(
      `${listed(`  let ${spelled(others)} = try ${fields}.others`, [`[${declared.join(", ")}]`, printForm(record.rest, "read", context)], "")}\n`,
    );
    given.push(`${others}: ${spelled(others)}`);
  }
  const start = `static func read${flat}(_ ${json}: ${wire}.JSON) throws(${wire}.Mismatch) -> ${name} {\n`;
  if (reads.length === 0) return `${start}  _ = try ${wire}.readRecord(${json})\n  return ${name}()\n}\n`;
  const declares = /\bothers\(/.test(reads.at(-1) ?? "") && reads.length === 1 ? "let" : "var";
  return `${start}  ${declares} ${fields} = try ${wire}.FieldReader(${json})\n${reads.join("")}${listed(`  return ${name}`, given, "")}\n}\n`;
}

function readForm({ field, state }: Property, context: ContractContext): string {
  if (state === "required") return printForm(field.type, "read", context);
  return printShapeForm(field.type.shape, "read", context);
}

function printWrite({ type, record, properties }: RecordParts, context: ContractContext): string {
  const { wire } = context;
  const flat = context.names.flat.get(type.id) ?? "";
  const lines = properties.map(({ field, key, stored, state }) => {
    const form =
      state === "required"
        ? printForm(field.type, "write", context)
        : printShapeForm(field.type.shape, "write", context);
    return `  fields.${state}(${key}, value.${spelled(stored)}, ${form})\n`;
  });
  if (record.rest)
    lines.push(
      `  fields.others(value.${spelled(recordNames(record).others)}, ${printForm(record.rest, "write", context)})\n`,
    );
  const start = `static func write${flat}(_ value: ${typeName(type.id, context)}) -> ${wire}.JSON {\n`;
  if (lines.length === 0) return `${start}  .record([:])\n}\n`;
  return `${start}  var fields = ${wire}.FieldWriter()\n${lines.join("")}  return fields.json\n}\n`;
}

/** Prints the function that collects the files below a record; nothing if there are none. */
function printFiles({ type, properties }: RecordParts, context: ContractContext): string[] {
  const lines = properties.flatMap(({ field, stored, state }) => {
    const value = `value.${spelled(stored)}${state === "sent" ? ".given" : ""}`;
    const text = filesOf(field, value, context);
    return text === undefined ? [] : [`  files.${text}\n`];
  });
  if (lines.length === 0) return [];
  const flat = context.names.flat.get(type.id) ?? "";
  return [
    `static func files${flat}(_ value: ${typeName(type.id, context)}) -> ${context.wire}.Files {\n  var files = ${context.wire}.Files()\n${lines.join("")}  return files\n}\n`,
  ];
}
