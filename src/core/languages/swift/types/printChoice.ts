import type { ChoiceShape, ChoiceValue } from "../../../contract/model.js";
import { typeWords } from "../../../sdk/lower/documentation.js";
import { sentences } from "../../../sdk/lower/sentences.js";
import type { PlannedType } from "../../../sdk/sdkPlan.js";
import { constant } from "../names/constants.js";
import type { ContractContext } from "../contractContext.js";
import { deprecation, docComment, quoted } from "../names/escape.js";
import { spelled } from "../names/identifiers.js";
import { constantNames } from "../names/names.js";
import { declaredName, typeName, type PrintedType } from "./printedType.js";
import { plainForm, plainKind, plainType } from "./printType.js";

/** The largest number of cases of an enum before the compiler becomes slow. */
const mostCases = 200;

/**
 * Prints an enum. A closed one is a Swift enum. An open one is a small struct around its string, to which the server
 * may add values. One with too many values for the compiler, or with values of several types, is such a struct too.
 */
export function printChoice(type: PlannedType, choice: ChoiceShape, context: ContractContext): PrintedType {
  const isOpen = isOpenChoice(choice, context);
  return {
    declared: isOpen ? printOpen(type, choice, context) : printClosed(type, choice, context),
    forms: printForms(type, choice, { isOpen, context }),
  };
}

/** Returns whether an enum is a struct around its string. */
export function isOpenChoice({ values }: ChoiceShape, { contract }: ContractContext): boolean {
  return (
    contract.settings.choices === "open" || values.length > mostCases || !canBeEnum(values.map(({ value }) => value))
  );
}

/** Whether an enum can have these raw values: strings and integers of which no two look the same. */
function canBeEnum(values: readonly ChoiceValue[]): boolean {
  const kind = plainKind(values);
  if (kind !== "String" && kind !== "Int64") return false;
  return new Set(values.map((value) => String(value).normalize())).size === values.length;
}

function printClosed(type: PlannedType, choice: ChoiceShape, context: ContractContext): string {
  const kind = plainKind(choice.values.map(({ value }) => value));
  const names = constantNames(choice.values);
  const cases = choice.values.map((each) => {
    const words = docComment({ paragraphs: [each.description] }, "  ") + deprecation(each.deprecated, "  ");
    const name = names.get(each) ?? "";
    const says = name === each.value ? "" : ` = ${constant(each.value, kind)}`;
    return `${words}  case ${spelled(name)}${says}\n`;
  });
  const raw = plainType(
    choice.values.map(({ value }) => value),
    context,
  );
  // The compiler does not list the cases if one of them is deprecated.
  const isListed = choice.values.every(({ deprecated }) => deprecated === undefined);
  return `${docComment(typeWords(type, false))}${context.access}enum ${declaredName(type.id, context)}: ${raw}, ${isListed ? "Swift.CaseIterable, " : ""}Swift.Sendable {\n${cases.join("")}}\n`;
}

function printOpen(type: PlannedType, choice: ChoiceShape, context: ContractContext): string {
  const { access } = context;
  const name = declaredName(type.id, context);
  const whole = typeName(type.id, context);
  const values = choice.values.map(({ value }) => value);
  const raw = plainType(values, context);
  const kind = plainKind(values);
  const names = constantNames(choice.values);
  const { paragraphs, deprecated } = typeWords(type, false);
  const said =
    context.contract.settings.choices === "open" ? [...paragraphs, sentences.unlistedChoice(name)] : paragraphs;
  const constants = choice.values.map((each) => {
    const words = docComment({ paragraphs: [each.description] }, "  ") + deprecation(each.deprecated, "  ");
    return `${words}  ${access}static var ${spelled(names.get(each) ?? "")}: ${whole} { .init(rawValue: ${constant(each.value, kind)}) }\n`;
  });
  return (
    `${docComment({ paragraphs: said, deprecated })}${access}struct ${name}: Swift.RawRepresentable, Swift.Hashable, Swift.Sendable {\n` +
    `  ${access}let rawValue: ${raw}\n` +
    // Without an access modifier, the compiler creates it itself.
    (access === "" ? "" : `\n  ${access}init(rawValue: ${raw}) {\n    self.rawValue = rawValue\n  }\n`) +
    `${constants.length > 0 ? "\n" : ""}${constants.join("")}}\n`
  );
}

function printForms(
  type: PlannedType,
  choice: ChoiceShape,
  { isOpen, context }: { readonly isOpen: boolean; readonly context: ContractContext },
): string[] {
  const direction = context.forms.get(type.id);
  if (!direction) return [];
  const { wire } = context;
  const name = typeName(type.id, context);
  const flat = context.names.flat.get(type.id) ?? "";
  const values = choice.values.map(({ value }) => value);
  const kind = plainKind(values);
  const made = isOpen
    ? `  ${name}(rawValue: try ${plainForm(kind, "read", context)}(json))\n`
    : `  let value = try ${plainForm(kind, "read", context)}(json)\n` +
      `  guard let choice = ${name}(rawValue: value) else {\n    throw ${wire}.Mismatch(${quoted(listed(values))})\n  }\n  return choice\n`;
  return [
    ...(direction.isRead
      ? [`static func read${flat}(_ json: ${wire}.JSON) throws(${wire}.Mismatch) -> ${name} {\n${made}}\n`]
      : []),
    ...(direction.isWritten
      ? [
          `static func write${flat}(_ value: ${name}) -> ${wire}.JSON {\n  ${plainForm(kind, "write", context)}(value.rawValue)\n}\n`,
        ]
      : []),
  ];
}

function listed(values: readonly ChoiceValue[]): string {
  const shown = values.slice(0, 20).map((value) => JSON.stringify(value));
  return [...shown, ...(values.length > 20 ? ["another value that is listed"] : [])].join(" or ");
}
