import type { AnyShape, ChoiceValue, Field, Reference, Shape, TupleShape } from "../../../contract/model.js";
import { mappedType } from "../../mappedType.js";
import { decodedLeaf } from "../../../sdk/lower/values/decodedLeaf.js";
import type { FileContext } from "../contractContext.js";
import { leafType } from "./leafType.js";
import { isAlias } from "../../../sdk/lower/values/wrappedAliases.js";

/** Returns a type as source. */
export function printReference(reference: Reference, context: FileContext): string {
  const type = printShape(reference.shape, context);
  return admitsNull(reference, context) ? orNull(type) : type;
}

/** Returns the nullable form of a type. */
export function orNull(type: string): string {
  return type.endsWith("?") ? type : `${type}?`;
}

/** Returns whether null is a value of a use of a shape. A value of any type includes JSON's own null. */
export function admitsNull(reference: Reference, context: FileContext): boolean {
  return context.nullness.admits(reference);
}

/**
 * Returns a value as source, in its shape's class if the shape is a name for something other than a record, an enum or
 * a union.
 */
export function inItsClass(made: string, shape: Shape, context: FileContext): string {
  const classes: string[] = [];
  const seen = new Set<string>();
  let found = shape;
  while (found.kind === "named" && !seen.has(found.key)) {
    seen.add(found.key);
    if (context.wrapped.has(found.key)) classes.push(printShape(found, context));
    found = context.contract.types.get(found.key)?.shape ?? { kind: "any" };
  }
  return classes.reduceRight((inner, name) => `${name}(${inner})`, made);
}

/** Returns the type of a shape, without null. */
export function printShape(shape: Shape, context: FileContext): string {
  const leaf = decodedLeaf(shape, context.contract.settings);
  if (leaf?.kind === "instant") return context.uses.other("java.time.Instant");
  if (leaf?.kind === "own") return context.formats[leaf.format]?.type ?? "String";
  const plain = leafType(shape);
  if (plain !== undefined) return plain;
  switch (shape.kind) {
    case "named":
      return context.names.types.get(shape.key) ?? context.uses.other(jsonElement);
    case "literal":
      return plainType([shape.value], context);
    case "choice":
      return plainType(
        shape.values.map(({ value }) => value),
        context,
      );
    case "list":
      return `List<${printReference(shape.item, context)}>`;
    case "map":
      return `Map<String, ${printReference(shape.value, context)}>`;
    case "tuple":
      return tupleType(shape, context);
    case "bytes":
      return context.uses.wire("Upload");
    case "any":
      return scalarType(shape, context);
    default:
      // Every record and union of a plan has a name. Without fields there is nothing to name.
      return context.uses.other(jsonElement);
  }
}

const jsonElement = "kotlinx.serialization.json.JsonElement";

/** Returns the common type of some constants. */
export function plainType(values: readonly ChoiceValue[], context: FileContext): string {
  if (values.every((value) => typeof value === "string")) return "String";
  if (values.every((value) => typeof value === "boolean")) return "Boolean";
  if (values.every((value) => typeof value === "number"))
    return values.every((value) => Number.isSafeInteger(value)) ? "Long" : "Double";
  return context.uses.other("kotlinx.serialization.json.JsonPrimitive");
}

/** Returns the reader and writer of such constants. */
export function plainForm(values: readonly ChoiceValue[], context: FileContext): string {
  const type = plainType(values, context);
  return context.uses.wire(type === "JsonPrimitive" ? "PlainForm" : type === "String" ? "TextForm" : `${type}Form`);
}

function scalarOf(shape: AnyShape, { scalars }: FileContext): string {
  return mappedType(shape, scalars, "JsonElement");
}

function scalarType(shape: Shape & { readonly kind: "any" }, context: FileContext): string {
  const type = scalarOf(shape, context);
  return type === "JsonElement" ? context.uses.other(jsonElement) : type;
}

/** Returns a key from the number of a tuple's positions, and whether more items may follow. */
export function tupleKey({ items, rest }: TupleShape): string {
  return `${String(items.length)}${rest ? "AndMore" : ""}`;
}

function tupleType(tuple: TupleShape, context: FileContext): string {
  const { items, rest, needed = items.length } = tuple;
  const parts = items.map((item, at) => {
    const type = printReference(item, context);
    return at < needed ? type : orNull(type);
  });
  if (rest) parts.push(printReference(rest, context));
  context.tuples.add(tupleKey(tuple));
  return `Tuple${tupleKey(tuple)}${parts.length > 0 ? `<${parts.join(", ")}>` : ""}`;
}

/** Whether a field is required, may be absent, or is sent as absent, null or a value. */
export type FieldState = "required" | "optional" | "sent";

/**
 * Returns the state of a field in source.
 *
 * @param isSent whether the app sends it
 */
export function fieldState(field: Field, isSent: boolean, context: FileContext): FieldState {
  if (field.required) return "required";
  return isSent && admitsNull(field.type, context) ? "sent" : "optional";
}

/** Returns the type of a field, with its state. */
export function printFieldType(field: Field, state: FieldState, context: FileContext): string {
  const type = printReference(field.type, context);
  switch (state) {
    case "required":
      return type;
    case "optional":
      return orNull(type);
    case "sent":
      return `${context.uses.wire("Sent")}<${type.replace(/\?$/, "")}>`;
  }
}

/** Returns an expression that reads or writes a value. */
export function printForm(reference: Reference, way: "read" | "write", context: FileContext): string {
  const form = printShapeForm(reference.shape, way, context);
  if (!admitsNull(reference, context)) return form;
  return `${context.uses.wire(way === "read" ? "readNullable" : "writeNullable")}(${form})`;
}

/** Returns an expression that reads or writes a value that is not null. */
export function printShapeForm(shape: Shape, way: "read" | "write", context: FileContext): string {
  const { uses } = context;
  const leaf = decodedLeaf(shape, context.contract.settings);
  if (leaf?.kind === "instant") return uses.wire("InstantForm");
  if (leaf?.kind === "own") return ownForm(leaf.format, way, context);
  switch (shape.kind) {
    case "named": {
      const type = context.contract.types.get(shape.key);
      if (!type) return uses.wire("AnyForm");
      if (isAlias(type.shape) && !context.wrapped.has(shape.key)) return printShapeForm(type.shape, way, context);
      return context.names.forms.get(shape.key) ?? uses.wire("AnyForm");
    }
    case "text":
      return uses.wire("TextForm");
    case "integer":
      return uses.wire(shape.format === "int32" ? "IntForm" : "LongForm");
    case "number":
      return uses.wire("DoubleForm");
    case "boolean":
      return uses.wire("BooleanForm");
    case "literal":
      return plainForm([shape.value], context);
    case "choice":
      return plainForm(
        shape.values.map(({ value }) => value),
        context,
      );
    case "list":
      return `${uses.wire(way === "read" ? "readList" : "writeList")}(${printForm(shape.item, way, context)})`;
    case "map":
      return `${uses.wire(way === "read" ? "readMap" : "writeMap")}(${printForm(shape.value, way, context)})`;
    case "tuple":
      return way === "read" ? tupleReader(shape, context) : tupleWriter(shape, context);
    case "bytes":
      return uses.wire("UploadForm");
    case "any": {
      const type = scalarOf(shape, context);
      return uses.wire(type === "JsonElement" ? "AnyForm" : type === "String" ? "TextForm" : `${type}Form`);
    }
    case "record":
    case "union":
      return uses.wire("AnyForm");
  }
}

function ownForm(format: string, way: "read" | "write", context: FileContext): string {
  const own = context.formats[format];
  if (!own) return context.uses.wire("TextForm");
  return way === "read"
    ? `${context.uses.wire("readOwn")}(::${context.uses.own(own.decode)})`
    : `${context.uses.wire("writeOwn")}(::${context.uses.own(own.encode)})`;
}

function tupleReader(tuple: TupleShape, context: FileContext): string {
  const { items, rest, needed = items.length } = tuple;
  const { uses } = context;
  const parts = items.map((item, at) => {
    if (at < needed) return `list.${uses.wire("part")}(${String(at)}, ${printForm(item, "read", context)})`;
    return `list.${uses.wire("optionalPart")}(${String(at)}, ${printShapeForm(item.shape, "read", context)})`;
  });
  if (rest) parts.push(`list.${uses.wire("rest")}(${String(items.length)}, ${printForm(rest, "read", context)})`);
  const made = `${tupleType(tuple, context)}(${parts.join(", ")})`;
  return `${uses.wire("readTuple")}(${String(needed)}) { ${parts.length > 0 ? "list -> " : ""}${made} }`;
}

function tupleWriter(tuple: TupleShape, context: FileContext): string {
  const { items, rest, needed = items.length } = tuple;
  const { uses } = context;
  const parts = items.map((item, at) => {
    const value = `tuple.part${String(at + 1)}`;
    if (at < needed) return `${printForm(item, "write", context)}.write(${value})`;
    return `${value}?.let { ${printShapeForm(item.shape, "write", context)}.write(it) }`;
  });
  const more = rest ? `, tuple.rest.map { ${printForm(rest, "write", context)}.write(it) }` : "";
  return `${uses.wire("Writer")}<${tupleType(tuple, context)}> { tuple -> ${uses.wire("writeTuple")}(listOf(${parts.join(", ")})${more}) }`;
}
