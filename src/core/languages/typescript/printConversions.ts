import { eachChild } from "../../contract/childReferences.js";
import type { Reference, Shape, UnionShape } from "../../contract/model.js";
import type { PlannedType } from "../../sdk/sdkPlan.js";
import { sortedBy } from "../../text/sortedBy.js";
import { propertyName, quoted } from "./escape.js";
import { convertedLeaf, usesConversion, usesFormatValues } from "./formats.js";
import { behind, type TypePrinter } from "./printType.js";

/** Which planned types hold something that is converted, and which of them need exact integers. */
export interface ConvertedTypes {
  readonly any: ReadonlySet<string>;
  readonly exact: ReadonlySet<string>;
}

export function convertedTypes(
  types: ReadonlyMap<string, PlannedType>,
  printer: Pick<TypePrinter, "formats">,
): ConvertedTypes {
  const any = new Set<string>();
  const exact = new Set<string>();
  const { dates, int64, own } = printer.formats;
  if (!dates && int64 === "number" && own.size === 0) return { any, exact };
  const usedBy = new Map<string, string[]>();
  for (const { id, shape } of types.values()) {
    const open: Shape[] = [shape];
    for (let next = open.pop(); next; next = open.pop()) {
      const leaf = convertedLeaf(next, printer.formats);
      if (leaf) any.add(id);
      if (leaf?.isExact === true) exact.add(id);
      if (next.kind === "named") usedBy.set(next.key, [...(usedBy.get(next.key) ?? []), id]);
      eachChild(next, (child) => open.push(child.shape));
    }
  }
  for (const set of [any, exact]) {
    const open = [...set];
    for (let id = open.pop(); id !== undefined; id = open.pop()) {
      for (const user of usedBy.get(id) ?? []) {
        if (set.has(user)) continue;
        set.add(user);
        open.push(user);
      }
    }
  }
  return { any, exact };
}

/** Prints the conversion of every planned type that needs one. */
export function printConversions(types: ReadonlyMap<string, PlannedType>, typePrinter: TypePrinter): string {
  if (typePrinter.converted.any.size === 0) return "";
  const printer: TypePrinter = { ...typePrinter, isAmongConversions: true };
  const sorted = sortedBy(
    [...types.values()].filter(({ id }) => printer.converted.any.has(id)),
    ({ id }) => printer.names.get(id) ?? id,
  );
  return sorted
    .map((type) => {
      const identifier = printer.names.get(type.id) ?? type.name;
      const own = shapeConversion(type.shape, printer, true) ?? "wire.fields({})";
      // The type behind an alias may be declared further down.
      const text = type.shape.kind === "named" ? `wire.alias(() => ${own})` : own;
      return `/** Turns \`${identifier}\` from what is on the wire into what the app has, and back. */\nexport const ${conversionName(identifier)}: wire.Conversion = ${text};\n`;
    })
    .join("\n");
}

function conversionName(identifier: string): string {
  return `convert${identifier}`;
}

/** The conversion of a use of a shape; undefined when nothing in it is converted. */
export function conversionOf(reference: Reference, printer: TypePrinter): string | undefined {
  return shapeConversion(reference.shape, printer, false);
}

/** Whether something in a shape needs integers with all their digits. */
export function needsExact(reference: Reference, printer: TypePrinter): boolean {
  const open: Shape[] = [reference.shape];
  for (let shape = open.pop(); shape; shape = open.pop()) {
    if (
      shape.kind === "named"
        ? printer.converted.exact.has(shape.key)
        : convertedLeaf(shape, printer.formats)?.isExact === true
    )
      return true;
    eachChild(shape, (child) => open.push(child.shape));
  }
  return false;
}

function shapeConversion(shape: Shape, printer: TypePrinter, isOwn: boolean): string | undefined {
  const leaf = convertedLeaf(shape, printer.formats);
  if (leaf) {
    if (leaf.isOwn) printer.onUse(usesFormatValues);
    return leaf.conversion;
  }
  switch (shape.kind) {
    case "named": {
      if (!printer.converted.any.has(shape.key)) return undefined;
      const name = conversionName(printer.names.get(shape.key) ?? "");
      if (printer.isAmongConversions === true) return name;
      printer.onUse(usesConversion);
      return `conversions.${name}`;
    }
    case "list": {
      const item = later(shape.item, printer);
      return item === undefined ? undefined : `wire.items(${item})`;
    }
    case "map": {
      const value = later(shape.value, printer);
      return value === undefined ? undefined : `wire.fields({}, ${value})`;
    }
    case "tuple": {
      const items = shape.items.map((item) => later(item, printer));
      const rest = shape.rest && later(shape.rest, printer);
      if (items.every((item) => item === undefined) && rest === undefined) return undefined;
      return `wire.positions([${items.map((item) => item ?? "undefined").join(", ")}]${rest === undefined ? "" : `, ${rest}`})`;
    }
    case "record": {
      const fields = shape.fields.flatMap((field) => {
        const of = later(field.type, printer);
        return of === undefined ? [] : [`${keyText(field.name)}: ${of}`];
      });
      const rest = shape.rest && later(shape.rest, printer);
      if (fields.length === 0 && rest === undefined) return isOwn ? "wire.fields({})" : undefined;
      const declared = shape.fields.map((field) => quoted(field.name)).join(", ");
      return `wire.fields({ ${fields.join(", ")} }${rest === undefined ? "" : `, ${rest}, [${declared}]`})`;
    }
    case "union":
      return unionConversion(shape, printer);
    default:
      return undefined;
  }
}

/** `__proto__` as a plain key of a literal would set the prototype. */
function keyText(name: string): string {
  return name === "__proto__" ? '["__proto__"]' : propertyName(name);
}

function later(reference: Reference, printer: TypePrinter): string | undefined {
  const text = conversionOf(reference, printer);
  return text === undefined ? undefined : `() => ${text}`;
}

function unionConversion(union: UnionShape, printer: TypePrinter): string | undefined {
  const members = union.members.map((member) => ({ member, of: later(member, printer) }));
  if (members.every(({ of }) => of === undefined)) return undefined;
  const { tag } = union;
  if (tag && union.members.every((member) => behind(member.shape, printer).kind === "record")) {
    const rows = members.flatMap(({ of }, at) =>
      of === undefined ? [] : (tag.values[at] ?? []).map((value) => `${keyText(value)}: ${of}`),
    );
    return `wire.tagged(${quoted(tag.field)}, { ${rows.join(", ")} })`;
  }
  const alternatives = members.flatMap(({ member, of }) => alternativesOf(member.shape, of, printer));
  // What says most about itself is asked first; of plain values those without a conversion, which any value fits.
  const rank = ({ needs, of, values }: AlternativeText): number =>
    (values ? -1000 : of === undefined ? -500 : 0) - needs.length;
  return `wire.either(${alternatives
    .sort((a, b) => rank(a) - rank(b))
    .map(alternativeText)
    .join(", ")})`;
}

interface AlternativeText {
  readonly kind: "text" | "number" | "list" | "record";
  readonly needs: readonly string[];
  readonly values?: readonly string[];
  readonly of?: string | undefined;
}

function alternativesOf(shape: Shape, of: string | undefined, printer: TypePrinter): AlternativeText[] {
  const inner = behind(shape, printer);
  switch (inner.kind) {
    case "text":
      return [{ kind: "text", needs: [], of }];
    case "integer":
    case "number":
      return [{ kind: "number", needs: [], of }];
    case "literal":
      return [
        { kind: typeof inner.value === "string" ? "text" : "number", needs: [], values: [JSON.stringify(inner.value)] },
      ];
    case "choice":
      return [{ kind: "text", needs: [], values: inner.values.map(({ value }) => JSON.stringify(value)) }];
    case "list":
    case "tuple":
      return [{ kind: "list", needs: [], of }];
    case "record":
      return [{ kind: "record", needs: inner.fields.filter((field) => field.required).map((field) => field.name), of }];
    case "map":
      return [{ kind: "record", needs: [], of }];
    case "union":
      return of === undefined
        ? []
        : [
            { kind: "record", needs: [], of },
            { kind: "text", needs: [], of },
            { kind: "number", needs: [], of },
            { kind: "list", needs: [], of },
          ];
    default:
      return [];
  }
}

function alternativeText({ kind, needs, values, of }: AlternativeText): string {
  const parts = [
    `kind: ${quoted(kind)}`,
    ...(values
      ? [
          `values: [${values.map((value) => (value.startsWith('"') ? quoted(JSON.parse(value) as string) : value)).join(", ")}]`,
        ]
      : []),
    ...(needs.length > 0 ? [`needs: [${needs.map(quoted).join(", ")}]`] : []),
    ...(of === undefined ? [] : [`of: ${of}`]),
  ];
  return `{ ${parts.join(", ")} }`;
}
