import type { AnyShape, ChoiceValue, Field, Reference, Shape, TupleShape } from "../../../contract/model.js";
import { mappedType } from "../../mappedType.js";
import { decodedLeaf } from "../../../sdk/lower/values/decodedLeaf.js";
import { isAlias } from "../../../sdk/lower/values/wrappedAliases.js";
import type { ContractContext } from "../contractContext.js";
import { formatMembers, formatName } from "./printFormats.js";
import { leafType } from "./leafType.js";

/** Returns a type as source. */
export function printReference(reference: Reference, context: ContractContext): string {
  const type = printShape(reference.shape, context);
  return admitsNull(reference, context) ? orNil(type) : type;
}

/** Returns the optional form of a type. */
export function orNil(type: string): string {
  return type.endsWith("?") ? type : `${type}?`;
}

/** Returns whether nil is a value of a use of a shape. A value of any type includes JSON's own null. */
export function admitsNull(reference: Reference, context: ContractContext): boolean {
  return context.nullness.admits(reference);
}

/** Returns the type of a shape, without nil. */
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
      // Every record and union of a plan has a name. Without fields there is nothing to name.
      return `${wire}.JSON`;
  }
}

/** Returns the common type of some constants, without the module: "JSON" if they have several types. */
export function plainKind(values: readonly ChoiceValue[]): "String" | "Bool" | "Int64" | "Double" | "JSON" {
  if (values.every((value) => typeof value === "string")) return "String";
  if (values.every((value) => typeof value === "boolean")) return "Bool";
  if (values.every((value) => typeof value === "number"))
    return values.every((value) => Number.isSafeInteger(value)) ? "Int64" : "Double";
  return "JSON";
}

/** Returns the type of some constants. */
export function plainType(values: readonly ChoiceValue[], { wire }: ContractContext): string {
  const kind = plainKind(values);
  return kind === "JSON" ? `${wire}.JSON` : `Swift.${kind}`;
}

/** Returns the function that reads or writes values of a type. */
export function plainForm(kind: string, way: "read" | "write", { wire }: ContractContext): string {
  return `${wire}.${way}${kind === "String" ? "Text" : kind}`;
}

/** Returns the type of a GraphQL scalar, or of a value of any type. */
export function scalarOf(shape: AnyShape, { scalars }: ContractContext): string {
  return mappedType(shape, scalars, "JSON");
}

/** The name of a tuple's type, from the number of its positions and whether more items may follow. */
function tupleTypeName({ items, rest }: Pick<TupleShape, "items" | "rest">): string {
  return `Tuple${String(items.length)}${rest ? "AndMore" : ""}`;
}

/** The name of a tuple's reader and writer: that of the type, with the number of required positions. */
function tupleName(tuple: TupleShape, context: ContractContext): string {
  const { items, rest, needed = items.length } = tuple;
  const name = `Tuple${String(items.length)}${needed < items.length ? `Of${String(needed)}` : ""}${rest ? "AndMore" : ""}`;
  context.tuples.set(name, { type: tupleTypeName(tuple), count: items.length, needed, hasRest: rest !== undefined });
  return name;
}

/** A tuple's type: a struct of the contract's part, because Swift's own tuples cannot be compared. */
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

/** Whether a field is required, may be absent, or is sent as absent, null or a value. */
export type FieldState = "required" | "optional" | "sent";

/**
 * Returns the state of a field in source.
 *
 * @param isSent whether the app sends it
 */
export function fieldState(field: Field, isSent: boolean, context: ContractContext): FieldState {
  if (field.required) return "required";
  return isSent && admitsNull(field.type, context) ? "sent" : "optional";
}

/** Returns the type of a field, with its state. */
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

/** Returns an expression that reads or writes a value. */
export function printForm(reference: Reference, way: "read" | "write", context: ContractContext): string {
  const form = printShapeForm(reference.shape, way, context);
  if (!admitsNull(reference, context)) return form;
  return `${context.wire}.${way}Nullable(${form})`;
}

/** Returns an expression that reads or writes a value that is not null. */
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
