import type { Field, RecordShape, Reference, Shape } from "../../contract/model.js";
import type { PlannedType } from "../../sdk/sdkPlan.js";
import { sortedBy } from "../../text/sortedBy.js";
import { propertyName, quoted } from "./escape.js";
import { convertedLeaf } from "./formats.js";
import { behind, printLiteral, type TypePrinter } from "./printType.js";
import { sampleLeaf } from "./sampleValue.js";

/** What is known of a record's builder while they are made: fields that only the test can fill. */
type Lacking = Map<string, readonly Field[] | "open">;

/**
 * Prints a builder for every record of a plan: its required fields filled, with the contract's examples where there are
 * some, and what the test says laid over them.
 */
export function printSamples(types: ReadonlyMap<string, PlannedType>, printer: TypePrinter): string {
  const lacking: Lacking = new Map();
  const records = sortedBy(
    [...types.values()].filter(({ shape }) => shape.kind === "record" && hasBuilder(shape, printer)),
    (type) => printer.names.get(type.id) ?? type.name,
  );
  return records
    .map((type) => {
      const identifier = printer.names.get(type.id) ?? type.name;
      printer.onUse(identifier);
      const lack = lackOf(type.id, printer, lacking);
      const fields = type.shape.kind === "record" ? type.shape.fields.filter((field) => field.required) : [];
      const filled = fields.filter((field) => !lack.includes(field));
      const text = (field: Field): string =>
        `${propertyName(field.name)}: ${sampleOfField(field, printer, lacking) ?? ""}`;
      const parts = filled.filter((field) => field.deprecated === undefined).map((field) => `    ${text(field)},\n`);
      // In a literal of its own, where no rule warns of what is deprecated.
      const older = filled
        .filter((field) => field.deprecated !== undefined)
        .map((field) => text(field).replace(/: \[\]$/, ": [] as never[]"));
      const before = older.length === 0 ? "" : `  const older = { ${older.join(", ")} } as const;\n`;
      if (older.length > 0) parts.unshift("    ...older,\n");
      const needed = lack.map((field) => quoted(field.name)).join(" | ");
      const over =
        lack.length === 0
          ? `over: Partial<${identifier}> = {}`
          : `over: Partial<${identifier}> & Pick<${identifier}, ${needed}>`;
      const doc = `/** A \`${identifier}\` with its required fields filled, and what is given laid over them. */\n`;
      return `${doc}export function sample${identifier}(${over}): ${identifier} {\n${before}  return {\n${parts.join("")}    ...over,\n  };\n}\n`;
    })
    .join("\n");
}

/** What is sealed cannot be built; its whole can. */
function hasBuilder(shape: RecordShape, printer: TypePrinter): boolean {
  const isSealed = printer.sealed !== undefined && (shape.seals ?? []).length > 0;
  return !shape.oneOf && shape.fields.length > 0 && !isSealed;
}

/** The required fields of a record that no sample can be made for: types of the app's own, and circles. */
function lackOf(id: string, printer: TypePrinter, lacking: Lacking): readonly Field[] {
  const known = lacking.get(id);
  if (known !== undefined && known !== "open") return known;
  const shape = printer.types.get(id)?.shape;
  lacking.set(id, "open");
  const fields = shape?.kind === "record" ? shape.fields.filter((field) => field.required) : [];
  const found = fields.filter((field) => sampleOfField(field, printer, lacking) === undefined);
  lacking.set(id, found);
  return found;
}

function sampleOfField(field: Field, printer: TypePrinter, lacking: Lacking): string | undefined {
  const value = fromExample(field, printer) ?? sample(field.type, printer, lacking);
  const isConstantList = value !== undefined && value.startsWith("[") && value !== "[]";
  return field.deprecated !== undefined && isConstantList ? undefined : value;
}

/** The contract's own example, where it is a plain value of the field's type. */
function fromExample({ example, type }: Field, printer: TypePrinter): string | undefined {
  const shape = behind(type.shape, printer);
  if (convertedLeaf(shape, printer.formats)) return undefined;
  if (shape.kind === "text" && typeof example === "string") return quoted(example);
  const isNumber = (shape.kind === "integer" || shape.kind === "number") && typeof example === "number";
  if (isNumber || (shape.kind === "boolean" && typeof example === "boolean")) return String(example);
  if (shape.kind !== "choice") return undefined;
  const listed = shape.values.find(({ value }) => value === example);
  return listed && printLiteral(listed.value);
}

function sample(reference: Reference, printer: TypePrinter, lacking: Lacking): string | undefined {
  return reference.nullable ? "null" : sampleShape(reference.shape, printer, lacking, []);
}

function sampleShape(
  shape: Shape,
  printer: TypePrinter,
  lacking: Lacking,
  passed: readonly string[],
): string | undefined {
  switch (shape.kind) {
    case "named": {
      const inner = printer.types.get(shape.key)?.shape;
      if (!inner || passed.includes(shape.key)) return undefined;
      if (inner.kind !== "record") return sampleShape(inner, printer, lacking, [...passed, shape.key]);
      if (!hasBuilder(inner, printer)) return inner.oneOf || inner.fields.length > 0 || inner.seals ? undefined : "{}";
      // A circle of records that need each other has no end.
      if (lacking.get(shape.key) === "open" || lackOf(shape.key, printer, lacking).length > 0) return undefined;
      return `sample${printer.names.get(shape.key) ?? ""}()`;
    }
    case "list":
    case "map":
      return shape.kind === "list" && (shape.constraints?.minItems ?? 0) > 0
        ? several(shape.item, shape.constraints?.minItems ?? 1, printer, lacking)
        : shape.kind === "list"
          ? "[]"
          : "{}";
    case "tuple": {
      const items = shape.items.slice(0, shape.needed ?? shape.items.length);
      const values = items.map((item) => sample(item, printer, lacking));
      return values.includes(undefined) ? undefined : `[${values.join(", ")}]`;
    }
    case "union": {
      for (const [at, member] of shape.members.entries()) {
        const value = sampleShape(member.shape, printer, lacking, passed);
        if (value !== undefined) return tagged(value, shape, at, member, printer);
      }
      return undefined;
    }
    case "record":
      return undefined;
    default:
      return sampleLeaf(shape, printer);
  }
}

const mostItems = 10;

function several(item: Reference, count: number, printer: TypePrinter, lacking: Lacking): string | undefined {
  const value = sample(item, printer, lacking);
  return value === undefined || count > mostItems
    ? undefined
    : `[${Array.from({ length: count }, () => value).join(", ")}]`;
}

/** A member of a union told apart by a tag that its record does not say itself. */
function tagged(
  value: string,
  { tag }: Shape & { kind: "union" },
  at: number,
  member: Reference,
  printer: TypePrinter,
): string {
  const tagValue = tag?.values[at]?.[0];
  const record = behind(member.shape, printer);
  if (!tag || tagValue === undefined || record.kind !== "record") return value;
  const own = record.fields.find((field) => field.name === tag.field && field.required);
  if (own && ["literal", "choice"].includes(behind(own.type.shape, printer).kind)) return value;
  return `{ ...${value}, ${propertyName(tag.field)}: ${quoted(tagValue)} }`;
}
