import type { Field, RecordShape } from "../../contract/model.js";
import { resolveShape } from "../../contract/resolveShape.js";
import { fieldWords, typeWords } from "../../sdk/lower/documentation.js";
import { sentences } from "../../sdk/lower/sentences.js";
import type { PlannedType } from "../../sdk/sdkPlan.js";
import { sortedBy } from "../../text/sortedBy.js";
import { constant } from "./constants.js";
import type { ContractContext } from "./contractContext.js";
import { deprecation, docComment, quoted } from "./escape.js";
import { printViews } from "./printViews.js";
import { filesOf } from "./filesOf.js";
import { freeName } from "./freeName.js";
import { spelled } from "./identifiers.js";
import { recordNames } from "./names.js";
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
import { indented, listed } from "./swiftFile.js";

/** A property of a record's struct. */
interface Property {
  readonly field: Field;
  readonly name: string;
  /** The name of what is stored, where that is not the property itself. */
  readonly stored: string;
  readonly state: FieldState;
  readonly type: string;
  /** What it is where nothing is given; undefined where something has to be. */
  readonly fallback: string | undefined;
  readonly isBoxed: boolean;
  readonly deprecated: string | undefined;
}

/** Prints a record: its struct, and what reads and writes it. */
export function printRecord(type: PlannedType, record: RecordShape, context: ContractContext): PrintedType {
  const properties = propertiesOf(type, record, context);
  return {
    declared: printStruct(type, record, properties, context),
    forms: printForms(type, record, properties, context),
  };
}

function propertiesOf(type: PlannedType, record: RecordShape, context: ContractContext): Property[] {
  const names = recordNames(record);
  const isSent = context.directions.get(type.id)?.isWritten === true;
  return record.fields.map((field) => {
    const state = fieldState(field, isSent, context);
    const name = names.of(field);
    const isBoxed = context.boxed.fields.has(field);
    return {
      field,
      name,
      stored: storedName(name, field, context),
      state,
      type: printFieldType(field, state, context),
      fallback: fallbackOf(field, state, context),
      isBoxed,
      deprecated: field.deprecated,
    };
  });
}

/** What is stored of a property: one that is deprecated is not used inside the SDK, and one that is boxed is a box. */
function storedName(name: string, field: Field, { boxed }: ContractContext): string {
  return boxed.fields.has(field) || field.deprecated !== undefined ? `_${name}` : name;
}

/** A property's value inside its own file. */
export function storedText(name: string, field: Field, context: ContractContext): string {
  return `${spelled(storedName(name, field, context))}${context.boxed.fields.has(field) ? ".value" : ""}`;
}

/** What a field is where nothing is given: an expression. Undefined where something has to be. */
export function fallbackOf(field: Field, state: FieldState, context: ContractContext): string | undefined {
  switch (state) {
    case "optional":
      return "nil";
    case "sent":
      return ".absent";
    case "required": {
      // What can only be one value need not be said.
      const shape = resolveShape(field.type.shape, context.contract.types);
      if (shape.kind !== "literal" || admitsNull(field.type, context)) return undefined;
      return constant(shape.value, plainKind([shape.value]));
    }
  }
}

function printStruct(
  type: PlannedType,
  record: RecordShape,
  properties: readonly Property[],
  context: ContractContext,
): string {
  const { access } = context;
  // In the order of names, so that neither another order in the contract nor a field that becomes optional moves a label.
  const sorted = sortedBy(properties, ({ name }) => name);
  const lines = sorted.map((each) => printProperty(each, context));
  const labels = sorted.map(
    ({ name, type: of, fallback }) => `${spelled(name)}: ${of}${fallback === undefined ? "" : ` = ${fallback}`}`,
  );
  const sets = sorted.map(
    ({ name, stored, isBoxed }) =>
      `    self.${spelled(stored)} = ${isBoxed ? `${context.wire}.Box(${spelled(name)})` : spelled(name)}\n`,
  );
  if (record.rest) {
    const others = spelled(recordNames(record).others);
    const of = `[Swift.String: ${printReference(record.rest, context)}]`;
    lines.push(`  /// ${sentences.otherKeys}\n  ${access}var ${others}: ${of}\n`);
    labels.push(`${others}: ${of} = [:]`);
    sets.push(`    self.${others} = ${others}\n`);
  }
  const whole =
    sets.length === 0 ? `  ${access}init() {}\n` : `${listed(`  ${access}init`, labels, " {")}\n${sets.join("")}  }\n`;
  const made = hasUsualInit(sorted, record, access) ? "" : whole;
  const body = [lines.join(""), made, ...printViews(type, context)].filter((each) => each !== "").join("\n");
  return `${docComment(typeWords(type, false))}${access}struct ${declaredName(type.id, context)}: Swift.Hashable, Swift.Sendable {\n${body}}\n`;
}

/** Whether the initialiser is the one that the compiler makes by itself. */
function hasUsualInit(properties: readonly Property[], { rest }: RecordShape, access: string): boolean {
  if (access !== "" || rest) return false;
  return properties.every(
    ({ name, stored, type, fallback }) => stored === name && fallback === (type.endsWith("?") ? "nil" : undefined),
  );
}

function printProperty({ field, name, stored, type, isBoxed, deprecated }: Property, context: ContractContext): string {
  const { access, wire } = context;
  const { paragraphs } = fieldWords(field);
  const start = `${docComment({ paragraphs }, "  ")}${deprecation(deprecated, "  ")}  ${access}var ${spelled(name)}: ${type}`;
  if (stored === name) return `${start}\n`;
  const get = isBoxed ? `${spelled(stored)}.value` : spelled(stored);
  const set = isBoxed ? `${wire}.Box(newValue)` : "newValue";
  const kept = isBoxed ? `${wire}.Box<${type}>` : type;
  return `${start} {\n    get { ${get} }\n    set { ${spelled(stored)} = ${set} }\n  }\n  fileprivate var ${spelled(stored)}: ${kept}\n`;
}

function printForms(
  type: PlannedType,
  record: RecordShape,
  properties: readonly Property[],
  context: ContractContext,
): string[] {
  const direction = context.forms.get(type.id);
  if (!direction) return [];
  const isSent = context.directions.get(type.id)?.isWritten === true;
  return [
    ...(direction.isRead ? [printRead(type, record, properties, context)] : []),
    ...(direction.isWritten ? [printWrite(type, record, properties, context)] : []),
    ...(isSent ? printFiles(type, properties, context) : []),
  ];
}

function printRead(
  type: PlannedType,
  record: RecordShape,
  properties: readonly Property[],
  context: ContractContext,
): string {
  const { wire } = context;
  const name = typeName(type.id, context);
  const flat = context.names.flat.get(type.id) ?? "";
  const own = [...properties.map((each) => each.name), recordNames(record).others];
  const json = freeName("json", own);
  const fields = freeName("fields", own);
  // Required fields are looked at before others, whatever is read first.
  const inOrder = [
    ...properties.filter(({ field }) => field.required),
    ...properties.filter(({ field }) => !field.required),
  ];
  const reads = inOrder.map(
    (each) =>
      `let ${spelled(each.name)} = try ${fields}.${each.state}(${quoted(each.field.name)}, ${readForm(each, context)})\n`,
  );
  const sorted = sortedBy(properties, (each) => each.name);
  const given = sorted.map((each) => `${each.name}: ${spelled(each.name)}`);
  if (record.rest) {
    const others = recordNames(record).others;
    const declared = record.fields.map((field) => quoted(field.name));
    reads.push(
      `${listed(`let ${spelled(others)} = try ${fields}.others`, [`[${declared.join(", ")}]`, printForm(record.rest, "read", context)], "")}\n`,
    );
    given.push(`${others}: ${spelled(others)}`);
  }
  const start = `static func read${flat}(_ ${json}: ${wire}.JSON) throws(${wire}.Mismatch) -> ${name} {\n`;
  if (reads.length === 0) return `${start}  _ = try ${wire}.readRecord(${json})\n  return ${name}()\n}\n`;
  const declares = /\bothers\(/.test(reads.at(-1) ?? "") && reads.length === 1 ? "let" : "var";
  return `${start}  ${declares} ${fields} = try ${wire}.FieldReader(${json})\n${indented(reads.join(""))}${listed(`  return ${name}`, given, "")}\n}\n`;
}

function readForm({ field, state }: Property, context: ContractContext): string {
  if (state === "required") return printForm(field.type, "read", context);
  return printShapeForm(field.type.shape, "read", context);
}

function printWrite(
  type: PlannedType,
  record: RecordShape,
  properties: readonly Property[],
  context: ContractContext,
): string {
  const { wire } = context;
  const flat = context.names.flat.get(type.id) ?? "";
  const lines = properties.map(({ field, name, state }) => {
    const form =
      state === "required"
        ? printForm(field.type, "write", context)
        : printShapeForm(field.type.shape, "write", context);
    return `  fields.${state}(${quoted(field.name)}, value.${storedText(name, field, context)}, ${form})\n`;
  });
  if (record.rest)
    lines.push(
      `  fields.others(value.${spelled(recordNames(record).others)}, ${printForm(record.rest, "write", context)})\n`,
    );
  const start = `static func write${flat}(_ value: ${typeName(type.id, context)}) -> ${wire}.JSON {\n`;
  if (lines.length === 0) return `${start}  .record([:])\n}\n`;
  return `${start}  var fields = ${wire}.FieldWriter()\n${lines.join("")}  return fields.json\n}\n`;
}

/** Prints what collects the files below a record; nothing where there are none. */
function printFiles(type: PlannedType, properties: readonly Property[], context: ContractContext): string[] {
  const lines = properties.flatMap(({ field, name, state }) => {
    const value = `value.${storedText(name, field, context)}${state === "sent" ? ".given" : ""}`;
    const text = filesOf(field, value, context);
    return text === undefined ? [] : [`  files.${text}\n`];
  });
  if (lines.length === 0) return [];
  const flat = context.names.flat.get(type.id) ?? "";
  return [
    `static func files${flat}(_ value: ${typeName(type.id, context)}) -> ${context.wire}.Files {\n  var files = ${context.wire}.Files()\n${lines.join("")}  return files\n}\n`,
  ];
}
