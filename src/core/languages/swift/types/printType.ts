import type { ChoiceValue, Field, Reference, Shape, TupleShape } from "../../../contract/model.js";
import { decodedLeaf } from "../../../sdk/lower/values/decodedLeaf.js";
import { holdsNull, isNullSaid } from "../../nullness.js";
import { isAlias } from "../../../sdk/lower/values/wrappedAliases.js";
import type { ContractContext } from "../contractContext.js";
import { formatMembers, formatName } from "./printFormats.js";
import { leafType } from "./leafType.js";

/** A type as source spells it. */
export function printReference(reference: Reference, context: ContractContext): string {
  const type = printShape(reference.shape, context);
  return admitsNull(reference, context) ? orNil(type) : type;
}

/** A type that nil may stand for too. */
export function orNil(type: string): string {
  return type.endsWith("?") ? type : `${type}?`;
}

/** Whether nil is among the values of a use of a shape; what may be anything holds JSON's own null. */
export function admitsNull(reference: Reference, context: ContractContext): boolean {
  if (isNullSaid(reference.shape)) return reference.nullable;
  return holdsNull(reference, {
    types: context.contract.types,
    wrapped: context.wrapped,
    isJson: (shape) => scalarOf(shape, context) === "JSON",
  });
}

/** The type of a shape, without nil. */
export function printShape(shape: Shape, context: ContractContext): string {
  const { space, wire } = context;
  const leaf = decodedLeaf(shape, context.contract.settings);
  if (leaf?.kind === "instant") return "Foundation.Date";
  if (leaf?.kind === "own") return `${formatName(leaf.format, context)}.${formatMembers(leaf.format, context).type}`;
  const plain = leafType(shape);
  if (plain !== undefined) return `Swift.${plain}`;
  switch (shape.kind) {
    case "named": {
      const name = context.names.types.get(shape.key);
      return name === undefined ? `${wire}.JSON` : `${space}.${name}`;
    }
    case "literal":
      return plainType([shape.value], context);
    case "choice":
      return plainType(
        shape.values.map(({ value }) => value),
        context,
      );
    case "list":
      return `[${printReference(shape.item, context)}]`;
    case "map":
      return `[Swift.String: ${printReference(shape.value, context)}]`;
    case "tuple":
      return tupleType(shape, context);
    case "bytes":
      return `${wire}.Upload`;
    case "any": {
      const scalar = scalarOf(shape, context);
      return scalar === "JSON" ? `${wire}.JSON` : `Swift.${scalar}`;
    }
    default:
      // Every record and union of a plan has a name; without fields there is nothing to name.
      return `${wire}.JSON`;
  }
}

/** What every one of some constants is, without the module: "JSON" where they are of several kinds. */
export function plainKind(values: readonly ChoiceValue[]): "String" | "Bool" | "Int64" | "Double" | "JSON" {
  if (values.every((value) => typeof value === "string")) return "String";
  if (values.every((value) => typeof value === "boolean")) return "Bool";
  if (values.every((value) => typeof value === "number"))
    return values.every((value) => Number.isSafeInteger(value)) ? "Int64" : "Double";
  return "JSON";
}

/** The type of some constants. */
export function plainType(values: readonly ChoiceValue[], { wire }: ContractContext): string {
  const kind = plainKind(values);
  return kind === "JSON" ? `${wire}.JSON` : `Swift.${kind}`;
}

/** What reads or writes values of a kind. */
export function plainForm(kind: string, way: "read" | "write", { wire }: ContractContext): string {
  return `${wire}.${way}${kind === "String" ? "Text" : kind}`;
}

/** What a GraphQL scalar is, and what may be anything. */
export function scalarOf(shape: Shape & { readonly kind: "any" }, { scalars }: ContractContext): string {
  return (shape.scalar !== undefined && scalars.get(shape.scalar)) || "JSON";
}

/** What a tuple's type is called: by how many positions it has, and whether more items may follow. */
function tupleTypeName({ items, rest }: Pick<TupleShape, "items" | "rest">): string {
  return `Tuple${String(items.length)}${rest ? "AndMore" : ""}`;
}

/** What a tuple is read and written by is called after the type, and by how many positions have to be there. */
function tupleName(tuple: TupleShape, context: ContractContext): string {
  const { items, rest, needed = items.length } = tuple;
  const name = `Tuple${String(items.length)}${needed < items.length ? `Of${String(needed)}` : ""}${rest ? "AndMore" : ""}`;
  context.tuples.set(name, { type: tupleTypeName(tuple), count: items.length, needed, hasRest: rest !== undefined });
  return name;
}

/** A tuple's type: a struct of the contract's part, since the language's own tuples cannot be compared. */
function tupleType(tuple: TupleShape, context: ContractContext): string {
  const { items, rest, needed = items.length } = tuple;
  const parts = items.map((item, at) => {
    const type = printReference(item, context);
    return at < needed ? type : orNil(type);
  });
  if (rest) parts.push(printReference(rest, context));
  tupleName(tuple, context);
  return `${context.space}.${tupleTypeName(tuple)}${parts.length > 0 ? `<${parts.join(", ")}>` : ""}`;
}

/** Whether a field has to be there, may be absent, or is sent as absent, null or a value. */
export type FieldState = "required" | "optional" | "sent";

/** Which of the states a field has in source. */
export function fieldState(field: Field, isSent: boolean, context: ContractContext): FieldState {
  if (field.required) return "required";
  return isSent && admitsNull(field.type, context) ? "sent" : "optional";
}

/** The type of a field, with what it means when it is absent. */
export function printFieldType(field: Field, state: FieldState, context: ContractContext): string {
  const type = printReference(field.type, context);
  switch (state) {
    case "required":
      return type;
    case "optional":
      return orNil(type);
    case "sent":
      return `${context.wire}.Sent<${type.replace(/\?$/, "")}>`;
  }
}

/** What reads a value, or writes it: an expression. */
export function printForm(reference: Reference, way: "read" | "write", context: ContractContext): string {
  const form = printShapeForm(reference.shape, way, context);
  if (!admitsNull(reference, context)) return form;
  return `${context.wire}.${way}Nullable(${form})`;
}

/** What reads or writes a value that is not null: an expression. */
export function printShapeForm(shape: Shape, way: "read" | "write", context: ContractContext): string {
  const { wire, space } = context;
  const leaf = decodedLeaf(shape, context.contract.settings);
  if (leaf?.kind === "instant") return `${wire}.${way}Date`;
  if (leaf?.kind === "own") {
    const format = formatName(leaf.format, context);
    const { decode, encode } = formatMembers(leaf.format, context);
    return way === "read" ? `${wire}.readOwn(${format}.${decode})` : `${wire}.writeOwn(${format}.${encode})`;
  }
  const plain = leafType(shape);
  if (plain !== undefined) return plainForm(plain, way, context);
  switch (shape.kind) {
    case "named": {
      const type = context.contract.types.get(shape.key);
      if (!type) return `${wire}.${way}JSON`;
      if (isAlias(type.shape) && !context.wrapped.has(shape.key)) return printShapeForm(type.shape, way, context);
      return `${space}.Forms.${way}${context.names.flat.get(shape.key) ?? ""}`;
    }
    case "literal":
      return plainForm(plainKind([shape.value]), way, context);
    case "choice":
      return plainForm(plainKind(shape.values.map(({ value }) => value)), way, context);
    case "list":
      return `${wire}.${way}List(${printForm(shape.item, way, context)})`;
    case "map":
      return `${wire}.${way}Map(${printForm(shape.value, way, context)})`;
    case "tuple":
      return tupleForm(shape, way, context);
    case "bytes":
      return `${wire}.${way}Upload`;
    case "any":
      return plainForm(scalarOf(shape, context), way, context);
    default:
      return `${wire}.${way}JSON`;
  }
}

function tupleForm(tuple: TupleShape, way: "read" | "write", context: ContractContext): string {
  const { items, rest, needed = items.length } = tuple;
  const parts = items.map((item, at) =>
    at < needed ? printForm(item, way, context) : printShapeForm(item.shape, way, context),
  );
  if (rest) parts.push(printForm(rest, way, context));
  return `${context.space}.Forms.${way}${tupleName(tuple, context)}(${parts.join(", ")})`;
}
