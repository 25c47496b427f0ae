import { typeWords } from "../../../sdk/lower/documentation.js";
import { positionNames } from "../../../sdk/lower/values/partNames.js";
import { sentences } from "../../../sdk/lower/sentences.js";
import { isAlias } from "../../../sdk/lower/values/wrappedAliases.js";
import type { PlannedType } from "../../../sdk/sdkPlan.js";
import { sortedBy } from "../../../text/sortedBy.js";
import { isUnmapped } from "../../isUnmapped.js";
import { typesByFile } from "../../typesByFile.js";
import type { ContractContext, UsedTuple } from "../contractContext.js";
import { docComment } from "../names/escape.js";
import { printCheck } from "./printChecks.js";
import { printChoice } from "./printChoice.js";
import { printOneOf } from "./printOneOf.js";
import { printRecord } from "./printRecord.js";
import { declaredName, typeName, type PrintedType } from "./printedType.js";
import { printForm, printReference } from "./printType.js";
import { printUnion } from "./printUnion.js";
import { indented } from "../../indented.js";
import { fileText } from "../swiftFile.js";

/**
 * Prints a file for each type with a name in the contract, and one for all names of something else. A type without a
 * name of its own is in the file of the type around it.
 *
 * @returns texts by the name of the type, and by "" for the others
 */
export function printTypes(context: ContractContext): Map<string, string> {
  const { contract, names } = context;
  const { files, aliases } = typesByFile(contract.types.values(), names.types, (type) => homeOf(type, context));
  const texts = new Map<string, string>();
  // One file after the other: the parts of thousands of types at once would fill the memory.
  for (const [name, types] of files) {
    const printed = types.flatMap((type) => printWhole(type, context) ?? []);
    if (printed.length > 0) texts.set(name, typesText(printed, context));
  }
  const named = aliases.map((type) => ({ declared: printAlias(type, context), forms: printCheck(type, context) }));
  if (named.length > 0) texts.set("", typesText(named, context));
  return texts;
}

/** The text of a file of types: their declarations, then their readers and writers. */
function typesText(types: readonly PrintedType[], { space }: ContractContext): string {
  const forms = types.flatMap((each) => each.forms);
  return fileText([
    ...types.map(({ declared }) => `extension ${space} {\n${indented(declared)}}\n`),
    ...(forms.length === 0 ? [] : [`extension ${space}.Forms {\n${forms.map((each) => indented(each)).join("\n")}}\n`]),
  ]);
}

/** The name of the type in whose file a type is declared; undefined if it is another name for something. */
function homeOf(type: PlannedType, context: ContractContext): string | undefined {
  const { shape, id } = type;
  if (isAlias(shape) && !context.wrapped.has(id)) return undefined;
  let outer = type;
  const seen = new Set<string>();
  while (outer.inside && !seen.has(outer.id)) {
    seen.add(outer.id);
    const next = context.contract.types.get(outer.inside.type);
    if (!next || (isAlias(next.shape) && !context.wrapped.has(next.id))) break;
    outer = next;
  }
  const name = context.names.types.get(outer.id) ?? "";
  return name.includes(".") ? name.slice(0, name.indexOf(".")) : name;
}

/** A type with its nested types, and their readers and writers. */
function printWhole(type: PlannedType, context: ContractContext): PrintedType | undefined {
  const printed = printType(type, context);
  if (!printed) return undefined;
  const inner = (context.names.nested.get(type.id) ?? []).flatMap((id) => {
    const nested = context.contract.types.get(id);
    return (nested && printWhole(nested, context)) ?? [];
  });
  const nested = inner.map(({ declared }) => indented(declared));
  return {
    declared:
      nested.length === 0 ? printed.declared : `${printed.declared.replace(/\}\n$/, "")}\n${nested.join("\n")}}\n`,
    forms: [...printed.forms, ...printCheck(type, context), ...inner.flatMap(({ forms }) => forms)],
  };
}

function printType(type: PlannedType, context: ContractContext): PrintedType | undefined {
  const { shape } = type;
  switch (shape.kind) {
    case "record":
      return shape.oneOf ? printOneOf(type, shape, context) : printRecord(type, shape, context);
    case "choice":
      return printChoice(type, shape, context);
    case "union":
      return printUnion(type, shape, context);
    default:
      return context.wrapped.has(type.id) ? printWrapper(type, context) : undefined;
  }
}

function printAlias(type: PlannedType, context: ContractContext): string {
  const { shape } = type;
  const of = printReference({ shape, nullable: false }, context);
  return `${docComment(typeWords(type, isUnmapped(shape, context.scalars)))}${context.access}typealias ${declaredName(type.id, context)} = ${of}\n`;
}

/** A struct for a name that contains itself. */
function printWrapper(type: PlannedType, context: ContractContext): PrintedType {
  const { access, wire } = context;
  const reference = { shape: type.shape, nullable: false };
  // The definition behind its own name.
  const open = {
    ...context,
    wrapped: new Set([...context.wrapped].filter((id) => id !== type.id || type.shape.kind === "named")),
  };
  const name = typeName(type.id, context);
  const flat = context.names.flat.get(type.id) ?? "";
  const of = printReference(reference, open);
  const { isRead = false, isWritten = false } = context.forms.get(type.id) ?? {};
  const box = context.boxed.aliases.has(type.id) ? `@${wire}.Box ` : "";
  return {
    declared: `${docComment(typeWords(type, false))}${access}struct ${declaredName(type.id, context)}: Swift.Hashable, Swift.Sendable {\n  ${box}${access}var value: ${of}\n\n  ${access}init(_ value: ${of}) {\n    self.value = value\n  }\n}\n`,
    forms: [
      ...(isRead
        ? [
            `static func read${flat}(_ json: ${wire}.JSON) throws(${wire}.Mismatch) -> ${name} {\n  ${name}(try ${printForm(reference, "read", context)}(json))\n}\n`,
          ]
        : []),
      ...(isWritten
        ? [
            `static func write${flat}(_ value: ${name}) -> ${wire}.JSON {\n  ${printForm(reference, "write", context)}(value.value)\n}\n`,
          ]
        : []),
    ],
  };
}

/** Prints the tuples in a contract's part, with their readers and writers; "" if there are none. */
export function printTuples(context: ContractContext): string {
  if (context.tuples.size === 0) return "";
  const { space } = context;
  const used = sortedBy(context.tuples, ([name]) => name);
  const types = new Map(used.map(([, tuple]) => [tuple.type, tuple]));
  return fileText([
    ...[...types.values()].map((tuple) => `extension ${space} {\n${indented(printTupleType(tuple, context))}}\n`),
    `extension ${space}.Forms {\n${used
      .flatMap(([name, tuple]) => printTupleForms(name, tuple, context))
      .map((each) => indented(each))
      .join("\n")}}\n`,
  ]);
}

function partsOf({
  count,
  hasRest,
}: UsedTuple): { readonly name: string; readonly type: string; readonly generic: string }[] {
  const parts = positionNames(count).map((name, at) => {
    const generic = `Part${String(at + 1)}`;
    return { name, type: generic, generic };
  });
  return hasRest ? [...parts, { name: "rest", type: "[Rest]", generic: "Rest" }] : parts;
}

function printTupleType(tuple: UsedTuple, { access }: ContractContext): string {
  const parts = partsOf(tuple);
  const generics = parts.map(({ generic }) => `${generic}: Swift.Hashable & Swift.Sendable`);
  const lines = parts.map(({ name, type }) => `  ${access}var ${name}: ${type}\n`);
  const labels = parts.map(({ name, type }) => `${name}: ${type}`);
  const sets = parts.map(({ name }) => `    self.${name} = ${name}\n`);
  const made =
    parts.length === 0 ? `  ${access}init() {}\n` : `\n  ${access}init(${labels.join(", ")}) {\n${sets.join("")}  }\n`;
  return `/// ${sentences.tuple}\n${access}struct ${tuple.type}${generics.length > 0 ? `<${generics.join(", ")}>` : ""}: Swift.Hashable, Swift.Sendable {\n${lines.join("")}${made}}\n`;
}

function printTupleForms(name: string, tuple: UsedTuple, { space, wire }: ContractContext): string[] {
  const parts = partsOf(tuple);
  const isOptional = (at: number): boolean => at >= tuple.needed && at < tuple.count;
  const generics = parts.map(({ generic }) => `${generic}: Swift.Hashable & Swift.Sendable`);
  const given = parts.map(({ generic }, at) => `${generic}${isOptional(at) ? "?" : ""}`);
  const type = `${space}.${tuple.type}${given.length > 0 ? `<${given.join(", ")}>` : ""}`;
  const start = (way: string, form: string): string =>
    `static func ${way}${name}${generics.length > 0 ? `<${generics.join(", ")}>` : ""}(${parts.map((part) => `_ ${part.name}: @escaping ${wire}.${form}<${part.generic}>`).join(", ")}) -> ${wire}.${form}<${type}>`;
  const reads = parts.map(({ name: part, type: of }, at) => {
    if (of === "[Rest]") return `${part}: try items.rest(from: ${String(tuple.count)}, ${part})`;
    return `${part}: try items.${isOptional(at) ? "optional" : "required"}(${String(at)}, ${part})`;
  });
  const writes = parts
    .slice(0, tuple.count)
    .map(({ name: part }, at) => (isOptional(at) ? `tuple.${part}.map(${part})` : `${part}(tuple.${part})`));
  const rest = tuple.hasRest ? ", rest: tuple.rest.map(rest)" : "";
  const items = parts.length === 0 ? "_" : "let items";
  const unused = parts.length === 0 ? "_" : "tuple";
  return [
    `${start("read", "Reader")} {\n  { json throws(${wire}.Mismatch) in\n    ${items} = try ${wire}.ItemReader(json, needed: ${String(tuple.needed)})\n    return ${type}(${reads.join(", ")})\n  }\n}\n`,
    `${start("write", "Writer")} {\n  { ${unused} in ${wire}.writeTuple([${writes.join(", ")}]${rest}) }\n}\n`,
  ];
}
