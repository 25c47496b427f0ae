import type { Field, Reference, Shape, UnionShape } from "../../contract/model.js";
import type { PlannedType } from "../../sdk/sdkPlan.js";
import { propertyName, quoted } from "./escape.js";
import type { TypeNames } from "./identifiers.js";

export interface TypePrinter {
  readonly types: ReadonlyMap<string, PlannedType>;
  readonly names: TypeNames;
  /** TypeScript type of each GraphQL scalar the configuration maps. */
  readonly scalars: ReadonlyMap<string, string>;
  /** Told of every planned type the printed text names. */
  readonly onUse: (identifier: string) => void;
}

/** Lenient: what an app gives. Exact: what it gets. */
export type Stance = "exact" | "lenient";

/** Prints a use of a shape as a TypeScript type. */
export function printReference(reference: Reference, printer: TypePrinter, stance: Stance): string {
  const text = printShape(reference.shape, printer, stance);
  if (!reference.nullable || text === "unknown" || isUnknown(reference.shape, printer)) return text;
  return text === "never" ? "null" : `${text} | null`;
}

/** Prints a shape that has no name of its own, or the name of one that has. */
export function printShape(shape: Shape, printer: TypePrinter, stance: Stance): string {
  switch (shape.kind) {
    case "text":
      return "string";
    case "integer":
    case "number":
      return "number";
    case "boolean":
      return "boolean";
    case "bytes":
      return "Blob";
    case "any":
      return (shape.scalar !== undefined && printer.scalars.get(shape.scalar)) || "unknown";
    case "literal":
      return printLiteral(shape.value);
    case "choice":
      return shape.values.map(({ value }) => printLiteral(value)).join(" | ");
    case "named": {
      const identifier = printer.names.get(shape.key) ?? "unknown";
      printer.onUse(identifier);
      return identifier;
    }
    case "list":
      return `${stance === "lenient" ? "readonly " : ""}${grouped(printReference(shape.item, printer, stance))}[]`;
    case "map":
      return `Record<string, ${printReference(shape.value, printer, stance)}>`;
    case "tuple": {
      const items = shape.items.map((item) => printReference(item, printer, stance));
      if (shape.rest) items.push(`...${grouped(printReference(shape.rest, printer, stance))}[]`);
      return `${stance === "lenient" ? "readonly " : ""}[${items.join(", ")}]`;
    }
    case "union":
      return printUnion(shape, printer, stance);
    case "record":
      return printInlineRecord(shape.fields, printer, stance);
  }
}

/** Only reached for the members of a one-of input; every other record of a plan has a name. */
function printInlineRecord(fields: readonly Field[], printer: TypePrinter, stance: Stance): string {
  const parts = fields.map((field) => `${propertyName(field.name)}: ${printReference(field.type, printer, stance)}`);
  return parts.length === 0 ? "Record<string, never>" : `{ ${parts.join("; ")} }`;
}

export function printLiteral(value: string | number | boolean): string {
  return typeof value === "string" ? quoted(value) : String(value);
}

function grouped(text: string): string {
  return /[ &|]/.test(text) && !/^(Record<|\{|\[)[^|&]*[>}\]]$/.test(text) ? `(${text})` : text;
}

/** Members that others already cover are left out: `string | "a"` says no more than `string`. */
export function printUnion(union: UnionShape, printer: TypePrinter, stance: Stance, ownId?: string): string {
  const members = union.members
    .map((member, at) => ({ member, at, atoms: atomsOf(member.shape, printer) }))
    .filter(({ member }) => ownId === undefined || !isAliasOf(member.shape, ownId, printer));
  if (members.some(({ atoms }) => atoms.includes("unknown"))) return "unknown";
  const all = new Set(members.flatMap(({ atoms }) => atoms));
  const seen = new Set<string>();
  const texts: string[] = [];
  for (const { member, at, atoms } of members) {
    const news = atoms.filter((atom) => !seen.has(atom) && !all.has(primitiveOf(atom)));
    if (news.length === 0) continue;
    for (const atom of news) seen.add(atom);
    const text = printReference(member, printer, stance);
    const tag = union.tag && printTag(union.tag.field, union.tag.values[at] ?? [], member.shape, printer);
    texts.push(tag === undefined ? text : `(${text} & ${tag})`);
  }
  return texts.length === 0 ? "never" : texts.join(" | ");
}

/** The tag as its own record, where the member does not already say it as exactly. */
function printTag(field: string, values: readonly string[], shape: Shape, printer: TypePrinter): string | undefined {
  const record = behind(shape, printer);
  if (record.kind !== "record" || values.length === 0) return undefined;
  const own = record.fields.find((each) => each.name === field);
  const said = own && behind(own.type.shape, printer);
  const known =
    said?.kind === "literal"
      ? [said.value]
      : said?.kind === "choice"
        ? said.values.map(({ value }) => value)
        : undefined;
  if (known && own?.required && known.every((value) => values.includes(String(value)))) return undefined;
  // A literal that contradicts the mapping would make the member impossible; the member's own word counts.
  if (known && !values.some((value) => known.includes(value))) return undefined;
  return `{ ${propertyName(field)}: ${values.map(quoted).join(" | ")} }`;
}

/** The shape behind names. */
export function behind(shape: Shape, printer: Pick<TypePrinter, "types">): Shape {
  const seen = new Set<string>();
  let current = shape;
  while (current.kind === "named" && !seen.has(current.key)) {
    seen.add(current.key);
    current = printer.types.get(current.key)?.shape ?? { kind: "any" };
  }
  return current;
}

function isUnknown(shape: Shape, printer: TypePrinter): boolean {
  return atomsOf(shape, printer).includes("unknown");
}

function isAliasOf(shape: Shape, id: string, printer: TypePrinter, seen = new Set<string>()): boolean {
  if (shape.kind === "union") return shape.members.some((member) => isAliasOf(member.shape, id, printer, seen));
  if (shape.kind !== "named") return false;
  if (shape.key === id) return true;
  if (seen.has(shape.key)) return false;
  seen.add(shape.key);
  const inner = printer.types.get(shape.key)?.shape;
  return inner !== undefined && isAliasOf(inner, id, printer, seen);
}

/** What a type comes down to for the compiler, so that two spellings of one type are known as one. */
function atomsOf(shape: Shape, printer: TypePrinter, seen: readonly string[] = []): string[] {
  switch (shape.kind) {
    case "named": {
      const type = printer.types.get(shape.key);
      if (!type || type.shape.kind === "record" || seen.includes(shape.key)) return [`#${shape.key}`];
      return atomsOf(type.shape, printer, [...seen, shape.key]);
    }
    case "union":
      return shape.members.flatMap((member) => [
        ...atomsOf(member.shape, printer, seen),
        ...(member.nullable ? ["null"] : []),
      ]);
    case "choice":
      return shape.values.map(({ value }) => `=${printLiteral(value)}`);
    case "literal":
      return [`=${printLiteral(shape.value)}`];
    case "list":
      return [`[${referenceAtoms(shape.item, printer, seen)}]`];
    case "map":
      return [`<${referenceAtoms(shape.value, printer, seen)}>`];
    case "tuple":
      return [
        `(${shape.items.map((item) => referenceAtoms(item, printer, seen)).join(",")}${shape.rest ? `...${referenceAtoms(shape.rest, printer, seen)}` : ""})`,
      ];
    default:
      return [printShape(shape, { ...printer, onUse: () => undefined }, "exact")];
  }
}

function referenceAtoms(reference: Reference, printer: TypePrinter, seen: readonly string[]): string {
  return [...atomsOf(reference.shape, printer, seen), ...(reference.nullable ? ["null"] : [])].sort().join("|");
}

function primitiveOf(atom: string): string {
  if (atom.startsWith('="')) return "string";
  if (atom === "=true" || atom === "=false") return "boolean";
  return atom.startsWith("=") ? "number" : "";
}
