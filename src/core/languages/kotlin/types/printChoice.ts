import type { ChoiceShape, ChoiceValue } from "../../../contract/model.js";
import { typeWords } from "../../../sdk/lower/documentation.js";
import { sentences } from "../../../sdk/lower/sentences.js";
import type { PlannedType } from "../../../sdk/sdkPlan.js";
import type { ContractContext, FileContext } from "../contractContext.js";
import { deprecation, docComment, quoted } from "../names/escape.js";
import { constant } from "../names/constants.js";
import { spelled } from "../names/identifiers.js";
import { constantNames } from "../names/names.js";
import { plainForm, plainType } from "./printType.js";
import { formType, type PrintedClass } from "./printedClass.js";

/** The largest number of cases of an enum before the JVM refuses its initialiser (JVM specification, 4.7.3: 64 KB). */
const mostCases = 1000;

/**
 * Prints an enum. A closed one is an enum class. An open one is a small class around its string, to which the server
 * may add values; so is one with more values than an enum class can have.
 */
export function printChoice(type: PlannedType, choice: ChoiceShape, context: FileContext): PrintedClass {
  const isOpen = isOpenChoice(choice, context);
  const declared = isOpen ? printOpen(type, choice, context) : printClosed(type, choice, context);
  const form = printChoiceForm(type, choice, { isOpen, context });
  return { declared, ...(form === "" ? {} : { form }), ...suppressed(choice) };
}

/** Returns whether an enum is a class around its string. */
export function isOpenChoice({ values }: ChoiceShape, { contract }: ContractContext): boolean {
  return contract.settings.choices === "open" || values.length > mostCases;
}

/** Returns the warnings that do not apply if a constant is deprecated. */
export function suppressed({ values }: ChoiceShape): Pick<PrintedClass, "suppresses"> {
  return values.some(({ deprecated }) => deprecated !== undefined) ? { suppresses: ["DEPRECATION"] } : {};
}

function printClosed(type: PlannedType, choice: ChoiceShape, context: FileContext): string {
  const name = context.names.types.get(type.id) ?? "";
  const member = memberOf(choice, context);
  const names = constantNames(choice.values);
  const cases = choice.values.map((each) => {
    const words = { paragraphs: [each.description] };
    return `${docComment(words, "    ")}${deprecation(each.deprecated, "    ")}    ${spelled(names.get(each) ?? "")}(${constant(each.value, member.type)}),\n`;
  });
  return `${docComment(typeWords(type, false))}public enum class ${name}(public val ${member.name}: ${member.type}) {\n${cases.join("")}}\n`;
}

function printOpen(type: PlannedType, choice: ChoiceShape, context: FileContext): string {
  const name = context.names.types.get(type.id) ?? "";
  const member = memberOf(choice, context);
  const names = constantNames(choice.values);
  const { paragraphs, deprecated } = typeWords(type, false);
  const words = { paragraphs: [...paragraphs, sentences.unlistedChoice(name)], deprecated };
  const constants = choice.values.map((each) => ({
    doc: docComment({ paragraphs: [each.description] }, "        ") + deprecation(each.deprecated, "        "),
    name: spelled(names.get(each) ?? ""),
    value: `${name}(${constant(each.value, member.type)})`,
  }));
  const text = member.type === "String" ? member.name : `${member.name}.toString()`;
  const within = constants
    .slice(0, mostCases)
    .map((each) => `${each.doc}        public val ${each.name}: ${name} get() = ${each.value}\n`);
  return (
    `${docComment(words)}@JvmInline\npublic value class ${name}(public val ${member.name}: ${member.type}) {\n` +
    `    override fun toString(): String = ${text}\n\n    public companion object {\n${within.join("")}    }\n}\n`
  );
}

/**
 * Prints the constants of an open enum that do not fit into its class, as many as fit into each file; none if the class
 * has space for all.
 */
export function printMoreConstants({ id }: PlannedType, choice: ChoiceShape, context: FileContext): string[] {
  const name = context.names.types.get(id) ?? "";
  const { type } = memberOf(choice, context);
  const names = constantNames(choice.values);
  const found: string[] = [];
  for (let from = mostCases; from < choice.values.length; from += mostCases) {
    const lines = choice.values.slice(from, from + mostCases).map((each) => {
      const doc = docComment({ paragraphs: [each.description] }) + deprecation(each.deprecated);
      return `${doc}public val ${name}.Companion.${spelled(names.get(each) ?? "")}: ${name} get() = ${name}(${constant(each.value, type)})\n`;
    });
    found.push(lines.join(""));
  }
  return found;
}

function memberOf({ values }: ChoiceShape, context: FileContext): { readonly name: string; readonly type: string } {
  const type = plainType(
    values.map(({ value }) => value),
    context,
  );
  return { name: type === "String" ? "text" : "value", type };
}

function printChoiceForm(
  type: PlannedType,
  choice: ChoiceShape,
  { isOpen, context }: { readonly isOpen: boolean; readonly context: FileContext },
): string {
  const direction = context.forms.get(type.id);
  if (!direction) return "";
  const name = context.names.types.get(type.id) ?? "";
  const { uses } = context;
  const member = memberOf(choice, context);
  const values = choice.values.map(({ value }) => value);
  const plain = plainForm(values, context);
  const json = uses.other("kotlinx.serialization.json.JsonElement");
  const made = isOpen
    ? `${name}(${plain}.read(value))`
    : `byValue[${plain}.read(value)] ?: throw ${uses.wire("Mismatch")}(${quoted(listed(values))})`;
  const table = `    private val byValue = ${name}.entries.associateBy { it.${member.name} }\n`;
  const reads = `    override fun read(value: ${json}): ${name} =\n        ${made}\n`;
  const writes = `    override fun write(value: ${name}): ${json} = ${plain}.write(value.${member.name})\n`;
  const parts = [
    ...(direction.isRead && !isOpen ? [table] : []),
    ...(direction.isRead ? [reads] : []),
    ...(direction.isWritten ? [writes] : []),
  ];
  return `internal object ${context.names.forms.get(type.id) ?? ""} : ${formType(name, direction, context)} {\n${parts.join("\n")}}\n`;
}

function listed(values: readonly ChoiceValue[]): string {
  const shown = values.slice(0, 20).map((value) => JSON.stringify(value));
  return [...shown, ...(values.length > 20 ? ["another value that is listed"] : [])].join(" or ");
}
