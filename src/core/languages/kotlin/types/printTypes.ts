import { sentences } from "../../../sdk/lower/sentences.js";
import { typeWords } from "../../../sdk/lower/documentation.js";
import { positionNames } from "../../../sdk/lower/values/partNames.js";
import type { PlannedType } from "../../../sdk/sdkPlan.js";
import { sortedBy } from "../../../text/sortedBy.js";
import { isUnmapped } from "../../isUnmapped.js";
import { typesByFile } from "../../typesByFile.js";
import { inFile, type ContractContext, type FileContext } from "../contractContext.js";
import { comment, docComment } from "../names/escape.js";
import { fileText } from "../kotlinFile.js";
import { isOpenChoice, printChoice, printMoreConstants, suppressed } from "./printChoice.js";
import { printCheck } from "./printChecks.js";
import { printOneOf } from "./printOneOf.js";
import { printRecord } from "./printRecord.js";
import { formType, withNested, type PrintedClass } from "./printedClass.js";
import { printForm, printReference } from "./printType.js";
import { printUnion } from "./printUnion.js";

/**
 * Prints a file for each type of a contract that has a class, and one for all other names. A type without a name of its
 * own in the contract is in the file of the type around it.
 *
 * @returns the files by path
 */
export function printTypes(context: ContractContext): Map<string, string> {
  const { contract, names } = context;
  const { files, aliases } = typesByFile(contract.types.values(), names.types, (type) => homeOf(type, context));
  const texts = new Map<string, string>();
  // One file after the other: the parts of thousands of types at once would fill the memory.
  for (const [name, types] of files) {
    texts.set(name, typesText(types, context));
    for (const type of types) for (const [more, text] of moreConstants(type, context)) texts.set(more, text);
  }
  if (aliases.length > 0) {
    const inside = inFile(context);
    const parts = aliases.flatMap((type) => [printAlias(type, inside), ...printCheck(type, inside)]);
    texts.set(
      `${names.contract.connection.replace(/Connection$/, "")}Types`,
      fileText({ package: context.package, uses: inside.uses, parts }),
    );
  }
  return texts;
}

/** The text of a file of types. */
function typesText(types: readonly PlannedType[], context: ContractContext): string {
  const inside = inFile(context);
  const parts: string[] = [];
  const suppresses = new Set<string>();
  for (const type of types) {
    const printed = printWhole(type, inside);
    if (!printed) continue;
    parts.push(printed.declared, ...printed.forms, ...printCheck(type, inside));
    for (const each of printed.suppresses) suppresses.add(each);
  }
  return fileText({ package: context.package, uses: inside.uses, parts, suppresses: [...suppresses].sort() });
}

/** The files with the constants for which a choice has no room, by path. */
function moreConstants(type: PlannedType, context: ContractContext): [string, string][] {
  const { shape } = type;
  if (shape.kind !== "choice" || !isOpenChoice(shape, context)) return [];
  const name = context.names.types.get(type.id) ?? "";
  const inside = inFile(context);
  return printMoreConstants(type, shape, inside).map((part, at) => [
    `${name}Constants${String(at + 2)}`,
    fileText({ package: context.package, uses: inside.uses, parts: [part], ...suppressed(shape) }),
  ]);
}

/** The name of the file with a type's class; undefined if it has no class. */
function homeOf(type: PlannedType, context: ContractContext): string | undefined {
  if (!hasClass(type, context)) return undefined;
  const outer = type.inside && context.contract.types.get(type.inside.type);
  const around = outer && homeOf(outer, context);
  return around ?? context.names.types.get(type.id);
}

function hasClass({ id, shape }: PlannedType, { wrapped }: ContractContext): boolean {
  return ["record", "choice", "union"].includes(shape.kind) || wrapped.has(id);
}

/** A class with its nested classes, their readers and writers, and the warnings that do not apply there. */
function printWhole(
  type: PlannedType,
  context: FileContext,
):
  { readonly declared: string; readonly forms: readonly string[]; readonly suppresses: readonly string[] } | undefined {
  const printed = printClass(type, context);
  if (!printed) return undefined;
  const inner = (context.names.nested.get(type.id) ?? []).flatMap((id) => {
    const nested = context.contract.types.get(id);
    return (nested && printWhole(nested, context)) ?? [];
  });
  return {
    declared: withNested(
      printed.declared,
      inner.map(({ declared }) => declared),
    ),
    forms: [...(printed.form === undefined ? [] : [printed.form]), ...inner.flatMap(({ forms }) => forms)],
    suppresses: [...new Set([...(printed.suppresses ?? []), ...inner.flatMap(({ suppresses }) => suppresses)])].sort(),
  };
}

function printClass(type: PlannedType, context: FileContext): PrintedClass | undefined {
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

function printAlias(type: PlannedType, context: FileContext): string {
  const name = context.names.types.get(type.id) ?? "";
  const of = printReference({ shape: type.shape, nullable: false }, context);
  return `${docComment(typeWords(type, isUnmapped(type.shape, context.scalars)))}public typealias ${name} = ${of}\n`;
}

/** A class for a name that contains itself. */
function printWrapper(type: PlannedType, context: FileContext): PrintedClass {
  const name = context.names.types.get(type.id) ?? "";
  const form = context.names.forms.get(type.id) ?? "";
  const reference = { shape: type.shape, nullable: false };
  // The definition behind its own name.
  const open = {
    ...context,
    wrapped: new Set([...context.wrapped].filter((id) => id !== type.id || type.shape.kind === "named")),
  };
  const { isRead = false, isWritten = false } = context.forms.get(type.id) ?? {};
  const { uses } = context;
  const declared = `${docComment(typeWords(type, false))}public data class ${name}(public val value: ${printReference(reference, open)})\n`;
  if (!isRead && !isWritten) return { declared };
  const reads = `    override fun read(value: ${uses.other("kotlinx.serialization.json.JsonElement")}): ${name} =\n        ${name}(${printForm(reference, "read", context)}.read(value))\n`;
  const writes = `    override fun write(value: ${name}): ${uses.other("kotlinx.serialization.json.JsonElement")} =\n        ${printForm(reference, "write", context)}.write(value.value)\n`;
  return {
    declared,
    form: `internal object ${form} : ${formType(name, { isRead, isWritten }, context)} {\n${[...(isRead ? [reads] : []), ...(isWritten ? [writes] : [])].join("\n")}}\n`,
  };
}

/** Prints the classes of the tuples in a contract's part; "" if there are none. */
export function printTuples(context: ContractContext): string {
  if (context.tuples.size === 0) return "";
  const parts = sortedBy(context.tuples, (key) => key.padStart(12, "0")).map((key) => {
    const names = positionNames(Number.parseInt(key, 10));
    const fields = names.map((name, at) => ({ name, type: `P${String(at + 1)}`, generic: `out P${String(at + 1)}` }));
    if (key.endsWith("AndMore")) fields.push({ name: "rest", type: "List<R>", generic: "out R" });
    if (fields.length === 0) return `${comment(sentences.tuple)}public data object Tuple${key}\n`;
    const generics = `<${fields.map(({ generic }) => generic).join(", ")}>`;
    const lines = fields.map(({ name, type }) => `    public val ${name}: ${type},\n`);
    return `${comment(sentences.tuple)}public data class Tuple${key}${generics}(\n${lines.join("")})\n`;
  });
  const { uses } = inFile(context);
  return fileText({ package: context.package, uses, parts });
}
