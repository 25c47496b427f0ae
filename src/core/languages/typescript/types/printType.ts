import type { Field, Reference, Shape, UnionShape } from "../../../contract/model.js";
import { resolveShape } from "../../../contract/resolveShape.js";
import type { PlannedType } from "../../../sdk/sdkPlan.js";
import { propertyName, quoted } from "../names/escape.js";
import type { SharedSettings } from "../../../sdk/lower/sharedSettings.js";
import { newerTag } from "../../../sdk/typePlanner.js";
import { decodedLeaf } from "../../../sdk/lower/values/decodedLeaf.js";
import { leafType } from "./formats.js";
import type { TypeNames } from "../names/identifiers.js";
import { noUses, type Uses } from "../moduleUses.js";

export interface TypePrinter {
  readonly types: ReadonlyMap<string, PlannedType>;
  readonly names: TypeNames;
  /** TypeScript type of each GraphQL scalar the configuration maps. */
  readonly scalars: ReadonlyMap<string, string>;
  readonly settings: TypeSettings;
  /** Whether a file is always sent as a whole, never as a stream. */
  readonly hasWholeFiles: boolean;
  /** The types of fragments by name; sealed fragments only. */
  readonly sealed: ReadonlyMap<string, Reference>;
  /** Records the names in the printed text. */
  readonly uses: Uses;
}

/** The settings that decide the type of a value in the app. */
export type TypeSettings = Pick<SharedSettings, "dates" | "int64" | "ownFormats" | "choices">;

/** Lenient: the app's input. Exact: the app's output. */
export type Stance = "exact" | "lenient";

/**
 * Prints a use of a shape as a TypeScript type.
 *
 * @param stance "lenient" for the app's input, "exact" for its output
 */
export function printReference(reference: Reference, printer: TypePrinter, stance: Stance): string {
  const atoms = reference.nullable ? atomsOf(reference.shape, printer) : undefined;
  // This comes before anything is printed, because printing a name makes it an import.
  if (atoms?.length === 0) return "null";
  const text = printShape(reference.shape, printer, stance);
  return !atoms || atoms.includes("unknown") || atoms.includes("null") ? text : `${text} | null`;
}

/**
 * Prints a shape without a name of its own, or the name of a shape.
 *
 * @param stance "lenient" for the app's input, "exact" for its output
 */
export function printShape(shape: Shape, printer: TypePrinter, stance: Stance): string {
  switch (shape.kind) {
    case "choice":
      return [...shape.values.map(({ value }) => printLiteral(value)), ...openEnds(shape, printer, stance)].join(" | ");
    case "named": {
      const identifier = printer.names.get(shape.key) ?? "unknown";
      printer.uses.type(identifier);
      return identifier;
    }
    case "list":
      return `${stance === "lenient" ? "readonly " : ""}${grouped(printReference(shape.item, printer, stance))}[]`;
    case "map":
      return `Record<string, ${printReference(shape.value, printer, stance)}>`;
    case "tuple": {
      const items = shape.items.map((item, at) => {
        const text = printReference(item, printer, stance);
        return at < (shape.needed ?? shape.items.length) ? text : `${grouped(text)}?`;
      });
      if (shape.rest) items.push(`...${grouped(printReference(shape.rest, printer, stance))}[]`);
      return `${stance === "lenient" ? "readonly " : ""}[${items.join(", ")}]`;
    }
    case "union":
      return printUnion(shape, printer, { stance });
    case "record":
      return printInlineRecord(shape.fields, printer, stance);
    default:
      tellOf(shape, printer);
      return leafText(shape, printer, stance);
  }
}

/** Records the modules for the type of a value without parts. */
function tellOf(shape: LeafShape, { settings, uses }: TypePrinter): void {
  if (shape.kind !== "text" && shape.kind !== "integer" && shape.kind !== "number") return;
  if (decodedLeaf(shape, settings)?.kind === "own") uses.module("formats", false);
  else if (shape.format === newerTag) uses.module("wire", false);
}

type LeafShape = Exclude<Shape, { kind: "choice" | "named" | "list" | "map" | "tuple" | "union" | "record" }>;

/** The type of a value without parts. */
function leafText(shape: LeafShape, printer: TypePrinter, stance: Stance): string {
  const leaf = decodedLeaf(shape, printer.settings);
  if (leaf) return leafType(leaf);
  switch (shape.kind) {
    case "text":
      return shape.format === newerTag ? "wire.NewerType" : "string";
    case "integer":
    case "number":
      return "number";
    case "boolean":
      return "boolean";
    case "bytes":
      if (printer.hasWholeFiles) return "Blob";
      return stance === "lenient" ? "Blob | Uint8Array | ArrayBuffer | ReadableStream<Uint8Array>" : "Blob";
    case "any":
      return (shape.scalar !== undefined && printer.scalars.get(shape.scalar)) || "unknown";
    case "literal":
      return printLiteral(shape.value);
  }
}

/** Only the members of a one-of input get here. Every other record of a plan has a name. */
function printInlineRecord(fields: readonly Field[], printer: TypePrinter, stance: Stance): string {
  const parts = fields.map((field) => `${propertyName(field.name)}: ${printReference(field.type, printer, stance)}`);
  return parts.length === 0 ? "Record<string, never>" : `{ ${parts.join("; ")} }`;
}

/** Returns members for values that a later contract may list. They keep the known values in an editor's completion. */
export function openEnds(shape: Shape & { kind: "choice" }, printer: TypePrinter, stance: Stance): string[] {
  if (printer.settings.choices === "closed" || stance === "lenient" || shape.isTag === true) return [];
  const kinds = new Set(shape.values.map(({ value }) => typeof value));
  return (["string", "number"] as const)
    .filter((kind) => kinds.has(kind))
    .map((kind) => `(${kind} & Record<never, never>)`);
}

/** Prints a constant as a literal type. */
export function printLiteral(value: string | number | boolean): string {
  return typeof value === "string" ? quoted(value) : String(value);
}

function grouped(text: string): string {
  if (/^\w+$/.test(text)) return text;
  return /[ &|]/.test(text) && !/^(Record<|\{|\[)[^|&]*[>}\]]$/.test(text) ? `(${text})` : text;
}

/**
 * Prints the members of a union, without those that others already cover: `string | "a"` is the same as `string`. If a
 * part of a named member is covered, the rest of it is written out.
 *
 * @param ownId the id of the union's own type, which must not refer to itself
 */
export function printUnion(
  union: UnionShape,
  printer: TypePrinter,
  { stance, ownId }: { readonly stance: Stance; readonly ownId?: string | undefined },
): string {
  const members = union.members
    .map((member, at) => ({ member, at, leaves: leavesOf(member.shape, printer, { stance }) }))
    .filter(({ member }) => ownId === undefined || !isAliasOf(member.shape, ownId, { printer }));
  const all = new Set(members.flatMap(({ leaves }) => leaves.map(({ atom }) => atom)));
  if (all.has("unknown")) return "unknown";
  const seen = new Set<string>();
  const texts: string[] = [];
  let nullable = members.some(({ member }) => member.nullable);
  for (const { member, at, leaves } of members) {
    const fresh = leaves.filter(({ atom }) => {
      const isFresh = !seen.has(atom) && !all.has(primitiveOf(atom));
      seen.add(atom);
      return isFresh;
    });
    if (fresh.length === 0) continue;
    const isWhole = fresh.length === leaves.length && !leaves.some(({ atom }) => atom === "null");
    if (!isWhole) {
      nullable ||= fresh.some(({ atom }) => atom === "null");
      for (const { atom, text } of fresh) if (atom !== "null") texts.push(text());
      continue;
    }
    const text = printShape(member.shape, printer, stance);
    const tag = union.tag && printTag(union.tag.field, union.tag.values[at] ?? [], { shape: member.shape, printer });
    texts.push(tag === undefined ? text : `(${text} & ${tag})`);
  }
  if (nullable) texts.push("null");
  return texts.length === 0 ? "never" : texts.join(" | ");
}

interface Leaf {
  readonly atom: string;
  /** Printed only if it is needed: printing a name makes it an import. */
  readonly text: () => string;
}

/** The parts of a shape, with unions, enums and all names except those of records opened. */
function leavesOf(
  shape: Shape,
  printer: TypePrinter,
  { stance, seen = new Set<string>() }: { readonly stance: Stance; readonly seen?: Set<string> | undefined },
): Leaf[] {
  if (shape.kind === "named") {
    const type = printer.types.get(shape.key);
    if (type && ["union", "choice", "named"].includes(type.shape.kind)) {
      // A union gains nothing from itself as a member, or from a member that it already has.
      if (seen.has(shape.key)) return [];
      seen.add(shape.key);
      return leavesOf(type.shape, printer, { stance, seen });
    }
  }
  if (shape.kind === "union") {
    return shape.members.flatMap((member) => [
      ...leavesOf(member.shape, printer, { stance, seen }),
      ...(member.nullable ? [{ atom: "null", text: () => "null" }] : []),
    ]);
  }
  if (shape.kind === "choice") {
    const open = openEnds(shape, printer, stance).map((text) => ({ atom: text, text: () => text }));
    return [
      ...shape.values.map(({ value }) => ({ atom: `=${printLiteral(value)}`, text: () => printLiteral(value) })),
      ...open,
    ];
  }
  const atoms = atomsOf(shape, printer);
  const text = (): string => printShape(shape, printer, stance);
  return atoms.length === 1
    ? [{ atom: atoms[0] ?? "", text }]
    : atoms.length === 0
      ? []
      : [{ atom: atoms.join("|"), text }];
}

/** The tag as its own record, if the member does not already declare it as exactly. */
function printTag(
  field: string,
  values: readonly string[],
  { shape, printer }: { readonly shape: Shape; readonly printer: TypePrinter },
): string | undefined {
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
  // A literal that contradicts the mapping would make the member impossible. The member's own value counts.
  if (known && !values.some((value) => known.includes(value))) return undefined;
  if (said && !known && said.kind !== "text") return undefined;
  return `{ ${propertyName(field)}: ${values.map(quoted).join(" | ")} }`;
}

/** Returns the shape that a name stands for. */
export function behind(shape: Shape, printer: Pick<TypePrinter, "types">): Shape {
  return resolveShape(shape, printer.types);
}

/** Returns whether the contract gives no type for a shape, also behind names. */
export function isUnknown(shape: Shape, printer: TypePrinter): boolean {
  switch (shape.kind) {
    case "named":
    case "union":
      return atomsOf(shape, printer).includes("unknown");
    case "any":
      return leafText(shape, printer, "exact") === "unknown";
    default:
      return false;
  }
}

/** Returns the same printer, without recording names. */
export function silent(printer: TypePrinter): TypePrinter {
  return printer.uses === noUses ? printer : { ...printer, uses: noUses };
}

function isAliasOf(
  shape: Shape,
  id: string,
  { printer, seen = new Set<string>() }: { readonly printer: TypePrinter; readonly seen?: Set<string> | undefined },
): boolean {
  if (shape.kind === "union") return shape.members.some((member) => isAliasOf(member.shape, id, { printer, seen }));
  if (shape.kind !== "named") return false;
  if (shape.key === id) return true;
  if (seen.has(shape.key)) return false;
  seen.add(shape.key);
  const inner = printer.types.get(shape.key)?.shape;
  return inner !== undefined && isAliasOf(inner, id, { printer, seen });
}

/**
 * Returns what a type is for the compiler, so that two spellings of one type are equal. Every name is opened once, so
 * that types that contain each other take no longer than their number.
 */
function atomsOf(shape: Shape, printer: TypePrinter): string[] {
  const atoms = new Set<string>();
  const opened = new Set<string>();
  const path = new Set<string>();
  const open = (inner: Shape): void => {
    switch (inner.kind) {
      case "named": {
        const { key } = inner;
        const type = printer.types.get(key);
        if (!type || type.shape.kind === "record" || path.has(key)) atoms.add(`#${key}`);
        else if (!opened.has(key)) {
          opened.add(key);
          path.add(key);
          open(type.shape);
          path.delete(key);
        }
        return;
      }
      case "union":
        for (const member of inner.members) {
          open(member.shape);
          if (member.nullable) atoms.add("null");
        }
        return;
      case "choice":
        for (const { value } of inner.values) atoms.add(`=${printLiteral(value)}`);
        return;
      case "literal":
        atoms.add(`=${printLiteral(inner.value)}`);
        return;
      case "list":
      case "map":
      case "tuple":
        atoms.add(containerAtom(inner, printer));
        return;
      case "record":
        atoms.add(printInlineRecord(inner.fields, silent(printer), "exact"));
        return;
      default:
        atoms.add(leafText(inner, printer, "exact"));
    }
  };
  open(shape);
  return [...atoms];
}

/** The known types that contain others, for a printer's types, settings and scalars. */
interface KnownContainers {
  readonly scalars: TypePrinter["scalars"];
  /** Undefined while a type is read that contains itself. */
  readonly atoms: Map<Shape, string | undefined>;
  /** Short marks for long atoms, so that an atom with another one twice is not twice as long. */
  readonly marks: Map<string, string>;
}

const knownContainers = new WeakMap<TypeSettings, WeakMap<TypePrinter["types"], KnownContainers>>();

function containersOf({ settings, types, scalars }: TypePrinter): KnownContainers {
  const byTypes = knownContainers.get(settings) ?? new WeakMap<TypePrinter["types"], KnownContainers>();
  knownContainers.set(settings, byTypes);
  const found = byTypes.get(types);
  if (found?.scalars === scalars) return found;
  const made = { scalars, atoms: new Map(), marks: new Map() };
  byTypes.set(types, made);
  return made;
}

const longestAtom = 100;

function containerAtom(shape: Shape & { kind: "list" | "map" | "tuple" }, printer: TypePrinter): string {
  const { atoms, marks } = containersOf(printer);
  if (atoms.has(shape)) return atoms.get(shape) ?? "[]";
  atoms.set(shape, undefined);
  const text = containerText(shape, printer);
  if (text.length > longestAtom && !marks.has(text)) marks.set(text, `@${String(marks.size)}`);
  const atom = marks.get(text) ?? text;
  atoms.set(shape, atom);
  return atom;
}

function containerText(shape: Shape & { kind: "list" | "map" | "tuple" }, printer: TypePrinter): string {
  const inside = (reference: Reference): string => referenceAtoms(reference, printer);
  switch (shape.kind) {
    case "list":
      return `[${inside(shape.item)}]`;
    case "map":
      return `<${inside(shape.value)}>`;
    case "tuple":
      return `(${shape.items.map(inside).join(",")}${shape.rest ? `...${inside(shape.rest)}` : ""})${String(shape.needed ?? "")}`;
  }
}

function referenceAtoms({ shape, nullable }: Reference, printer: TypePrinter): string {
  return [...new Set([...atomsOf(shape, printer), ...(nullable ? ["null"] : [])])].sort().join("|");
}

function primitiveOf(atom: string): string {
  if (atom.startsWith('="')) return "string";
  if (atom === "=true" || atom === "=false") return "boolean";
  const open = /^\((string|number) & /.exec(atom)?.[1];
  if (open !== undefined) return open;
  return atom.startsWith("=") ? "number" : "";
}

/** Returns whether a shape has no values. */
export function isNever(shape: Shape, printer: TypePrinter): boolean {
  const { kind } = shape;
  return (kind === "named" || kind === "union" || kind === "choice") && atomsOf(shape, printer).length === 0;
}
