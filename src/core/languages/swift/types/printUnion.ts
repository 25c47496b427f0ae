import type { Reference, UnionShape } from "../../../contract/model.js";
import { typeWords } from "../../../sdk/lower/documentation.js";
import { saysTag } from "../../../sdk/lower/values/sample.js";
import { sentences } from "../../../sdk/lower/sentences.js";
import { tellAllApart, tellApart, type AnyMemberForm } from "../../../sdk/lower/values/tellApart.js";
import type { PlannedType } from "../../../sdk/sdkPlan.js";
import { constant } from "../names/constants.js";
import type { ContractContext } from "../contractContext.js";
import { docComment, quoted } from "../names/escape.js";
import { printViews } from "./printViews.js";
import { spelled } from "../names/identifiers.js";
import { unionCases } from "../names/names.js";
import { declaredName, typeName, type PrintedType } from "./printedType.js";
import { printShape, printShapeForm } from "./printType.js";
import { listed } from "../swiftFile.js";

/** A member of a union in source. */
interface Member {
  readonly at: number;
  readonly reference: Reference;
  readonly name: string;
}

/** Prints a union: an enum with a case for each member, and its reader and writer. */
export function printUnion(type: PlannedType, union: UnionShape, context: ContractContext): PrintedType {
  const newer = newerMember(union);
  const isOpen = newer < 0 && (context.contract.settings.unions === "open" || union.members.length === 0);
  const names = unionCases(union, context.contract.types);
  const members = union.members.map((reference, at) => ({ at, reference, name: spelled(names.get(reference) ?? "") }));
  const cases = members.map(({ name, reference }) => `  case ${name}(${printShape(reference.shape, context)})\n`);
  if (isOpen) {
    const tag = union.tag ? "tag: Swift.String?, " : "";
    cases.push(`  /// ${sentences.otherMember}\n  case other(${tag}json: ${context.wire}.JSON)\n`);
  }
  const views = printViews(type, context);
  const indirect = context.boxed.unions.has(type.id) ? "indirect " : "";
  return {
    declared: `${docComment(typeWords(type, false))}${context.access}${indirect}enum ${declaredName(type.id, context)}: Swift.Hashable, Swift.Sendable {\n${[cases.join(""), ...views].join("\n")}}\n`,
    forms: printForms(type, { union, members, isOpen }, context),
  };
}

/** The position of the member for types that the schema does not have yet; -1 if there is none. */
function newerMember({ tag }: UnionShape): number {
  return tag ? tag.values.findIndex((values) => values.length === 0) : -1;
}

interface Printed {
  readonly union: UnionShape;
  readonly members: readonly Member[];
  readonly isOpen: boolean;
}

function printForms(type: PlannedType, printed: Printed, context: ContractContext): string[] {
  const direction = context.forms.get(type.id);
  if (!direction) return [];
  const { wire } = context;
  const name = typeName(type.id, context);
  const flat = context.names.flat.get(type.id) ?? "";
  return [
    ...(direction.isRead
      ? [
          `static func read${flat}(_ json: ${wire}.JSON) throws(${wire}.Mismatch) -> ${name} {\n${readText(printed, context)}}\n`,
        ]
      : []),
    ...(direction.isWritten
      ? [`static func write${flat}(_ value: ${name}) -> ${wire}.JSON {\n${writeText(printed, context)}}\n`]
      : []),
  ];
}

function readText({ union, members, isOpen }: Printed, context: ContractContext): string {
  const { wire } = context;
  const made = (member: Member, value: string): string =>
    `.${member.name}(try ${printShapeForm(member.reference.shape, "read", context)}(${value}))`;
  const telling = tellApart(union, context.contract.types);
  if (telling.by === "tag") {
    const tags = telling.rows.map(({ value }) => JSON.stringify(value)).slice(0, 20);
    const newer = members[newerMember(union)];
    const path = `/${telling.field.replace(/~/g, "~0").replace(/\//g, "~1")}`;
    const otherwise = newer
      ? `return ${made(newer, "json")}`
      : isOpen
        ? "return .other(tag: tag, json: json)"
        : `throw ${wire}.Mismatch(${quoted(tags.join(" or "))}, at: ${quoted(path)})`;
    const tagsOf = new Map<Member, string[]>();
    for (const { value, at } of telling.rows) {
      const member = members[at];
      if (member) tagsOf.set(member, [...(tagsOf.get(member) ?? []), quoted(value)]);
    }
    const rows = [...tagsOf].map(([member, values]) => `  case ${values.join(", ")}: return ${made(member, "json")}\n`);
    return `  let tag = try ${wire}.tag(json, ${quoted(telling.field)})\n  switch tag {\n${rows.join("")}  default: ${otherwise}\n  }\n`;
  }
  const forms = tellAllApart(union, context.contract.types, context.contract.settings.choices === "open");
  const other = `.other(${union.tag ? "tag: nil, " : ""}json: json)`;
  if (forms.length === 0) return `  ${other}\n`;
  const lines = forms.flatMap((form) => {
    const member = members[form.at];
    if (!member) return [];
    const condition = conditionText(form, context);
    const tried = `do throws(${wire}.Mismatch) {\n      return ${made(member, "json")}\n    } catch {\n      furthest = ${wire}.further(error, furthest)\n    }\n`;
    return condition === undefined
      ? `  do throws(${wire}.Mismatch) {\n    return ${made(member, "json")}\n  } catch {\n    furthest = ${wire}.further(error, furthest)\n  }\n`
      : `  if ${condition} {\n    ${tried}  }\n`;
  });
  if (isOpen) {
    const plain = lines.map((line) => line.replace(/\n( *)furthest = [^\n]*/g, ""));
    return `${plain.join("").replace(/ catch \{\n +\}/g, " catch {}")}  return ${other}\n`;
  }
  return `  var furthest: ${wire}.Mismatch?\n${lines.join("")}  throw ${wire}.noneFits(furthest)\n`;
}

/** The condition under which a value can have a member's type; undefined if every value can. */
function conditionText(
  { kind, needs, values, constants = [] }: AnyMemberForm,
  { wire }: ContractContext,
): string | undefined {
  if (values) {
    const listedValues = values.slice(0, mostListed).map((value) => constant(value, "JSON"));
    if (values.length <= mostListed) return `${wire}.isOne(json, of: ${listedValues.join(", ")})`;
    return `${wire}.${typeof values[0] === "number" ? "isNumber" : "isText"}(json)`;
  }
  switch (kind) {
    case "record": {
      const isThere = `${wire}.isRecord(json${needs.length > 0 ? `, with: ${needs.map(quoted).join(", ")}` : ""})`;
      const says = constants.map(
        (field) =>
          `${wire}.has(json, ${quoted(field.name)}, oneOf: ${field.values.map((value) => constant(value, "JSON")).join(", ")})`,
      );
      return [isThere, ...says].join(", ");
    }
    case "list":
      return `${wire}.isList(json)`;
    case "text":
      return `${wire}.isText(json)`;
    case "whole":
    case "number":
      return `${wire}.isNumber(json)`;
    case "truth":
      return `${wire}.isTruth(json)`;
    case "anything":
      return undefined;
  }
}

/** More values are not listed again. Reading the value shows whether it matches. */
const mostListed = 50;

function writeText({ union, members, isOpen }: Printed, context: ContractContext): string {
  const { tag } = union;
  const rows = members.map(({ reference, name, at }) => {
    const form = `${printShapeForm(reference.shape, "write", context)}(value)`;
    const value = tag?.values[at]?.[0];
    const says = !tag || value === undefined || saysTag(reference, tag.field, context.contract.types);
    const text = says ? form : listed(`${context.wire}.tagged`, [form, quoted(tag.field), quoted(value)], "");
    return `  case .${name}(let value): ${text}\n`;
  });
  if (isOpen) rows.push(`  case .other(${tag ? "_, " : ""}let json): json\n`);
  return `  switch value {\n${rows.join("")}  }\n`;
}
