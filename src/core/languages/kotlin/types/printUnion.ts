import type { Field, Reference, UnionShape } from "../../../contract/model.js";
import { fieldWords } from "../../../sdk/lower/documentation.js";
import { saysTag } from "../../../sdk/lower/values/sample.js";
import { sentences } from "../../../sdk/lower/sentences.js";
import { tellAllApart, tellApart, type AnyMemberForm } from "../../../sdk/lower/values/tellApart.js";
import type { PlannedType } from "../../../sdk/sdkPlan.js";
import { sortedBy } from "../../../text/sortedBy.js";
import type { FileContext } from "../contractContext.js";
import { deprecation, docComment, quoted } from "../names/escape.js";
import { spelled } from "../names/identifiers.js";
import { widest } from "../kotlinFile.js";
import { declaredName, inheritedFields, isOfQuery, sharedFields, spelledInside } from "../names/nestedNames.js";
import { memberClassNames, recordNames } from "../names/names.js";
import { constant } from "../names/constants.js";
import { fieldState, printFieldType, printShape, printShapeForm } from "./printType.js";
import { formType, type PrintedClass } from "./printedClass.js";
import { answerComment } from "../calls/answerComment.js";
import { superTypes } from "./superTypes.js";

/** A member of a union in source. */
interface Member {
  readonly at: number;
  readonly reference: Reference;
  /** The class of its values. */
  readonly type: string;
  /** Whether it is a class around the value, not the value's own. */
  readonly isWrapped: boolean;
}

/** Prints a union: a sealed interface of its members, and its reader and writer. */
export function printUnion(type: PlannedType, union: UnionShape, context: FileContext): PrintedClass {
  const name = context.names.types.get(type.id) ?? "";
  const shared = printShared(type, union, context);
  if (context.fragments.ids.has(type.id)) return { declared: declaration(type, shared, context) };
  const newer = newerMember(union);
  const isOpen = newer < 0 && (context.contract.settings.unions === "open" || union.members.length === 0);
  const members = membersOf(type, union, context);
  const wrapped = members.filter(({ isWrapped }) => isWrapped);
  const nested = [...wrapped.map(({ type: of }) => of.slice(name.length + 1)), "Other"];
  const classes = wrapped.map(({ type: of, reference }) => {
    const value = spelledInside(printShape(reference.shape, context), type.id, { context, more: nested });
    return `    public data class ${of.slice(name.length + 1)}(public val value: ${value}) : ${declaredName(type.id, context)}\n`;
  });
  const json = context.uses.other("kotlinx.serialization.json.JsonElement");
  if (isOpen) {
    const tag = union.tag ? "public val tag: String?, " : "";
    classes.push(
      `    /** ${sentences.otherMember} */\n    public data class Other(${tag}public val json: ${json}) : ${declaredName(type.id, context)}\n`,
    );
  }
  const form = printUnionForm(type, union, { members, context: { ...context, isOpen } });
  return { declared: declaration(type, [...shared, ...classes], context), ...(form === "" ? {} : { form }) };
}

/** The common fields of all members of a union in a response. */
function printShared(type: PlannedType, union: UnionShape, context: FileContext): string[] {
  if (!isOfQuery(type.id, context)) return [];
  const inherited = inheritedFields(type.id, context);
  const names = answerNames(union, context);
  const lines = sortedBy(
    sharedFields(union, context).filter(({ name }) => !inherited.has(name)),
    names,
  ).map((field) => {
    const { paragraphs, deprecated } = fieldWords(field);
    const of = spelledInside(printFieldType(field, fieldState(field, false, context), context), type.id, { context });
    return `${docComment({ paragraphs }, "    ")}${deprecation(deprecated, "    ")}    public val ${spelled(names(field))}: ${of}\n`;
  });
  return lines.length === 0 ? [] : [lines.join("")];
}

function answerNames({ members: [first] }: UnionShape, { contract }: FileContext): (field: Field) => string {
  const shape = first?.shape.kind === "named" ? contract.types.get(first.shape.key)?.shape : undefined;
  return shape?.kind === "record" ? recordNames(shape).of : ({ name }) => name;
}

function declaration(type: PlannedType, classes: readonly string[], context: FileContext): string {
  const body = classes.length === 0 ? "" : ` {\n${classes.join("\n")}}`;
  return `${answerComment(type, context)}public sealed interface ${declaredName(type.id, context)}${superTypes(type, context)}${body}\n`;
}

/** The position of the member for types that the schema does not have yet; -1 if there is none. */
function newerMember({ tag }: UnionShape): number {
  return tag ? tag.values.findIndex((values) => values.length === 0) : -1;
}

function membersOf(type: PlannedType, union: UnionShape, context: FileContext): Member[] {
  const name = context.names.types.get(type.id) ?? "";
  if (context.unions.ids.has(type.id))
    return union.members.map((reference, at) => ({
      at,
      reference,
      type: printShape(reference.shape, context),
      isWrapped: false,
    }));
  const names = memberClassNames(union, context.contract.types);
  return union.members.map((reference, at) => ({
    at,
    reference,
    type: `${name}.${names.get(reference) ?? ""}`,
    isWrapped: true,
  }));
}

function printUnionForm(
  type: PlannedType,
  union: UnionShape,
  {
    members,
    context,
  }: { readonly members: readonly Member[]; readonly context: FileContext & { readonly isOpen: boolean } },
): string {
  const direction = context.forms.get(type.id);
  if (!direction) return "";
  const name = context.names.types.get(type.id) ?? "";
  const json = context.uses.other("kotlinx.serialization.json.JsonElement");
  const reads = `    override fun read(value: ${json}): ${name} =\n${readText(name, union, { members, context })}`;
  const writes = `    override fun write(value: ${name}): ${json} =\n${writeText(name, union, { members, context })}`;
  const parts = [...(direction.isRead ? [reads] : []), ...(direction.isWritten ? [writes] : [])];
  return `internal object ${context.names.forms.get(type.id) ?? ""} : ${formType(name, direction, context)} {\n${parts.join("\n")}}\n`;
}

function readText(
  name: string,
  union: UnionShape,
  {
    members,
    context,
  }: { readonly members: readonly Member[]; readonly context: FileContext & { readonly isOpen: boolean } },
): string {
  const { uses } = context;
  const made = ({ reference, type, isWrapped }: Member, value: string): string => {
    const read = `${printShapeForm(reference.shape, "read", context)}.read(${value})`;
    return isWrapped ? `${type}(${read})` : read;
  };
  const telling = tellApart(union, context.contract.types);
  if (telling.by === "tag") {
    const field = quoted(telling.field);
    const tags = telling.rows.map(({ value }) => JSON.stringify(value)).slice(0, 20);
    const newer = members[newerMember(union)];
    const otherwise = newer
      ? made(newer, "value")
      : context.isOpen
        ? `${name}.Other(tag, value)`
        : `throw ${uses.wire("Mismatch")}(${quoted(tags.join(" or "))}, ${quoted(`/${telling.field.replace(/~/g, "~0").replace(/\//g, "~1")}`)})`;
    const tagsOf = new Map<Member, string[]>();
    for (const { value, at } of telling.rows) {
      const member = members[at];
      if (member) tagsOf.set(member, [...(tagsOf.get(member) ?? []), quoted(value)]);
    }
    const rows = [...tagsOf].map(([member, values]) => {
      const row = (separator: string): string => `            ${values.join(separator)} -> ${made(member, "value")}\n`;
      return row(", ").length <= widest ? row(", ") : row(",\n            ");
    });
    return `        when (${context.isOpen ? "val tag = " : ""}${uses.wire("tagOf")}(value, ${field})) {\n${rows.join("")}            else -> ${otherwise}\n        }\n`;
  }
  const forms = tellAllApart(union, context.contract.types, context.contract.settings.choices === "open");
  if (forms.length === 0) return `        ${name}.Other(${union.tag ? "null, " : ""}value)\n`;
  const tries = forms.flatMap((form) => {
    const member = members[form.at];
    return member ? [`            { if (${conditionText(form, context)}) ${made(member, "it")} else null },\n`] : [];
  });
  const fitting = uses.wire(context.isOpen ? "firstFitting" : "onlyFitting");
  const otherwise = context.isOpen ? ` ?: ${name}.Other(${union.tag ? "null, " : ""}value)` : "";
  return `        ${fitting}<${name}>(\n            value,\n${tries.join("")}        )${otherwise}\n`;
}

function conditionText({ kind, needs, values, constants = [] }: AnyMemberForm, { uses }: FileContext): string {
  if (values) {
    uses.other("kotlinx.serialization.json.JsonPrimitive");
    const constants = values.slice(0, mostListed).map((value) => constant(value, "JsonPrimitive"));
    if (values.length <= mostListed) return `${uses.wire("isOneOf")}(it, ${constants.join(", ")})`;
    return `${uses.wire(typeof values[0] === "number" ? "isNumber" : "isText")}(it)`;
  }
  switch (kind) {
    case "record": {
      const isThere = `${uses.wire("isRecord")}(${["it", ...needs.map(quoted)].join(", ")})`;
      const says = constants.map((field) => {
        uses.other("kotlinx.serialization.json.JsonPrimitive");
        const of = field.values.map((value) => constant(value, "JsonPrimitive"));
        return `${uses.wire("hasOneOf")}(${["it", quoted(field.name), ...of].join(", ")})`;
      });
      return [isThere, ...says].join(" && ");
    }
    case "list":
      return `${uses.wire("isList")}(it)`;
    case "text":
      return `${uses.wire("isText")}(it)`;
    case "whole":
    case "number":
      return `${uses.wire("isNumber")}(it)`;
    case "truth":
      return `${uses.wire("isTruth")}(it)`;
    case "anything":
      return "true";
  }
}

/** More values are not listed again. Reading the value shows whether it matches. */
const mostListed = 50;

function writeText(
  name: string,
  union: UnionShape,
  {
    members,
    context,
  }: { readonly members: readonly Member[]; readonly context: FileContext & { readonly isOpen: boolean } },
): string {
  const { tag } = union;
  const rows = members.map(({ reference, type, isWrapped, at }) => {
    const form = printShapeForm(reference.shape, "write", context);
    const value = tag?.values[at]?.[0];
    const says = !tag || value === undefined || saysTag(reference, tag.field, context.contract.types);
    const tagged = says ? "" : `.${context.uses.wire("tagged")}(${quoted(tag.field)}, ${quoted(value)})`;
    return `            is ${type} -> ${form}.write(value${isWrapped ? ".value" : ""})${tagged}\n`;
  });
  if (context.isOpen) rows.push(`            is ${name}.Other -> value.json\n`);
  return `        when (value) {\n${rows.join("")}        }\n`;
}
