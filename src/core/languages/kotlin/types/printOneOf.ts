import type { Field, RecordShape } from "../../../contract/model.js";
import { fieldWords, typeWords } from "../../../sdk/lower/documentation.js";
import type { PlannedType } from "../../../sdk/sdkPlan.js";
import type { FileContext } from "../contractContext.js";
import { deprecation, docComment, quoted } from "../names/escape.js";
import { filesOf } from "../filesOf.js";
import { spelled } from "../names/identifiers.js";
import { oneOfClassNames, recordNames } from "../names/names.js";
import { declaredName, spelledInside } from "../names/nestedNames.js";
import { formType, type PrintedClass } from "./printedClass.js";
import { printShape, printShapeForm } from "./printType.js";
import { writeMethods } from "./writeMethods.js";

/** A field of an input of which exactly one is given. */
interface Member {
  readonly field: Field;
  /** Its class, inside the input's, and the property with the value. */
  readonly name: string;
  readonly property: string;
}

/**
 * Prints an input of which exactly one field is given (GraphQL, section 3.10.1): a sealed interface with a class for
 * each field, and its writer. The given field is never null.
 */
export function printOneOf(type: PlannedType, record: RecordShape, context: FileContext): PrintedClass {
  const members = membersOf(type, record, context);
  const nested = members.map(({ name }) => name);
  const outer = declaredName(type.id, context);
  const classes = members.map(({ field, name, property }) => {
    const { paragraphs, deprecated } = fieldWords(field);
    const doc = docComment({ paragraphs }, "    ") + deprecation(deprecated, "    ");
    const of = spelledInside(printShape(field.type.shape, context), type.id, { context, more: nested });
    return `${doc}    public data class ${name}(public val ${spelled(property)}: ${of}) : ${outer}\n`;
  });
  const isDeprecated = members.some(({ field }) => field.deprecated !== undefined);
  const form = printOneOfForm(type, members, context);
  return {
    declared: `${docComment(typeWords(type, false))}public sealed interface ${outer} {\n${classes.join("\n")}}\n`,
    ...(form === "" ? {} : { form }),
    ...(isDeprecated ? { suppresses: ["DEPRECATION"] } : {}),
  };
}

function membersOf({ id }: PlannedType, record: RecordShape, context: FileContext): Member[] {
  const names = oneOfClassNames(record, declaredName(id, context));
  const properties = recordNames(record);
  return record.fields.map((field) => ({ field, name: names.get(field) ?? "", property: properties.of(field) }));
}

function printOneOfForm(type: PlannedType, members: readonly Member[], context: FileContext): string {
  const { uses, names } = context;
  if (context.forms.get(type.id)?.isWritten !== true) return "";
  const whole = names.types.get(type.id) ?? "";
  const row = ({ name }: Member, does: string): string => `is ${whole}.${name} -> ${does}\n`;
  const rows = members.map((member) => {
    const form = printShapeForm(member.field.type.shape, "write", context);
    return row(member, `required(${quoted(member.field.name)}, value.${spelled(member.property)}, ${form})`);
  });
  const files = members.flatMap((member) => {
    const text = filesOf(member.field, { value: `value.${spelled(member.property)}`, isSent: false }, context);
    return text === undefined ? [] : [row(member, text)];
  });
  const collects =
    files.length === 0
      ? ""
      : `\n    fun files(value: ${whole}): Map<String, ${uses.wire("Upload")}> = buildMap {\n${matched(
          files,
          files.length === members.length,
        )
          .map((line) => `        ${line}`)
          .join("")}    }\n`;
  const form = formType(whole, { isRead: false, isWritten: true }, context);
  return `internal object ${names.forms.get(type.id) ?? ""} : ${form} {\n${writeMethods(whole, rows, { context, around: matched })}${collects}}\n`;
}

/** A match on the value. Members other than those of the rows need no code. */
function matched(rows: readonly string[], isWhole: boolean): string[] {
  const all = isWhole ? rows : [...rows, "else -> {}\n"];
  return ["when (value) {\n", ...all.map((line) => `    ${line}`), "}\n"];
}
