import type { Field, RecordShape, Reference, UnionShape } from "../../../contract/model.js";
import { resolveShape } from "../../../contract/resolveShape.js";
import { memberFor } from "../../../sdk/lower/fragmentTypes.js";
import type { PlannedType } from "../../../sdk/sdkPlan.js";
import { sortedBy } from "../../../text/sortedBy.js";
import { constant } from "../names/constants.js";
import type { ContractContext } from "../contractContext.js";
import { spelled } from "../names/identifiers.js";
import { recordNames, unionCases } from "../names/names.js";
import { typeName } from "./printedType.js";
import { storedName } from "./storedName.js";
import { fieldState, printFieldType } from "./printType.js";
import { listed } from "../swiftFile.js";

/** Prints the other types of a value in a response: each fragment that it spreads, with the types inside them. */
export function printViews(type: PlannedType, context: ContractContext): string[] {
  const views = sortedBy(context.views.get(type.id) ?? [], (id) => context.names.flat.get(id) ?? "");
  return views.map((id) => {
    const of = typeName(id, context);
    const body = bodyOf(type, id, context);
    return `  /// The value as a \`${of}\`, with the fields of a fragment.\n  ${context.access}var ${viewName(id, context)}: ${of} {\n${body}\n  }\n`;
  });
}

function viewName(id: string, { names }: ContractContext): string {
  return `as${names.flat.get(id) ?? ""}`;
}

function bodyOf({ shape }: PlannedType, to: string, context: ContractContext): string {
  const target = context.contract.types.get(to)?.shape;
  if (shape.kind === "record" && target?.kind === "record") return recordText(shape, target, { id: to, context });
  if (shape.kind !== "union") return `    fatalError("unreachable")`;
  const names = unionCases(shape, context.contract.types);
  const rows = shape.members.map((member) => {
    const name = spelled(names.get(member) ?? "");
    return `    case .${name}(let value): ${asType("value", member, { to, context })}`;
  });
  return `    switch self {\n${rows.join("\n")}\n    }`;
}

function recordText(
  from: RecordShape,
  to: RecordShape,
  { id, context }: { readonly id: string; readonly context: ContractContext },
): string {
  const own = new Map(from.fields.map((field) => [field.name, field]));
  const ownNames = recordNames(from);
  const names = recordNames(to);
  const given = sortedBy(to.fields, names.of).flatMap((field) => {
    const source = own.get(field.name);
    const kept = source && `self.${spelled(storedName(ownNames.of(source), source))}`;
    const value =
      source && kept !== undefined && !isLeftToTag(source, field, context)
        ? converted(kept, source, { to: field, context })
        : tagText(from, field, context);
    return value === undefined ? [] : [`${names.of(field)}: ${value}`];
  });
  return listed(`    ${typeName(id, context)}`, given, "");
}

/**
 * Whether a record may lack a field that a fragment always has. Its own query selects the field under a condition, and
 * the fragment's query got it added to distinguish types of which the record can only have one.
 */
function isLeftToTag(from: Field, to: Field, context: ContractContext): boolean {
  const isOptional = (field: Field): boolean =>
    printFieldType(field, fieldState(field, false, context), context).endsWith("?");
  return to.added === true && isOptional(from) && !isOptional(to);
}

/**
 * The field that distinguishes the types of a union, if the record itself does not have it; undefined if the type is
 * obvious.
 */
function tagText(from: RecordShape, field: Field, context: ContractContext): string | undefined {
  const shape = resolveShape(field.type.shape, context.contract.types);
  if (shape.kind === "literal") return undefined;
  const [name = ""] = from.objects ?? [];
  const text = constant(name, "String");
  return shape.kind === "choice" ? `.init(rawValue: ${text})` : text;
}

function converted(
  value: string,
  from: Field,
  { to, context }: { readonly to: Field; readonly context: ContractContext },
): string {
  const isOptional = printFieldType(from, fieldState(from, false, context), context).endsWith("?");
  return withNil(value, isOptional, (inner) => asReference(inner, from.type, { to: to.type, context }));
}

/** Converts a value, or the value inside an optional. */
function withNil(value: string, isOptional: boolean, convert: (value: string) => string): string {
  if (!isOptional) return convert(value);
  const inner = convert("$0");
  return inner === "$0" ? value : `${value}.map { ${inner} }`;
}

function asReference(
  value: string,
  from: Reference,
  { to, context }: { readonly to: Reference; readonly context: ContractContext },
): string {
  if (from.shape.kind === "list" && to.shape.kind === "list") {
    const [item, wanted] = [from.shape.item, to.shape.item];
    const inner = withNil("$0", item.nullable, (each) => asReference(each, item, { to: wanted, context }));
    return inner === "$0" ? value : `${value}.map { ${inner} }`;
  }
  const id = to.shape.kind === "named" ? to.shape.key : undefined;
  return id === undefined ? value : asType(value, from, { to: id, context });
}

/** A value converted to a type inside a fragment. */
function asType(
  value: string,
  from: Reference,
  { to, context }: { readonly to: string; readonly context: ContractContext },
): string {
  const { types } = context.contract;
  const own = from.shape.kind === "named" ? from.shape.key : undefined;
  if (own === undefined || own === to) return value;
  if (context.views.get(own)?.has(to) === true) return `${value}.${viewName(to, context)}`;
  const record = types.get(own)?.shape;
  const union = types.get(to)?.shape;
  if (record?.kind !== "record" || union?.kind !== "union") return value;
  return memberText(value, { from, record, union, to }, context);
}

/** A record converted to the union member of its values. */
function memberText(
  value: string,
  {
    from,
    record,
    union,
    to,
  }: { readonly from: Reference; readonly record: RecordShape; readonly union: UnionShape; readonly to: string },
  context: ContractContext,
): string {
  const key = memberFor(record, union.members, union.tag?.values);
  const member = union.members.find(({ shape }) => shape.kind === "named" && shape.key === key);
  if (key === undefined || !member) return value;
  const name = unionCases(union, context.contract.types).get(member) ?? "";
  return `${typeName(to, context)}.${spelled(name)}(${asType(value, from, { to: key, context })})`;
}
