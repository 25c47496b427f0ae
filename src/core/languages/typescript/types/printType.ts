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
  /** A file is sent as a whole, never as a stream. */
  readonly hasWholeFiles: boolean;
  /** Types of fragments by the fragment's name; sealed fragments only. */
  readonly sealed: ReadonlyMap<string, Reference>;
  /** Told of everything that the printed text names. */
  readonly uses: Uses;
}

/** The settings that decide what a value is in the app. */
export type TypeSettings = Pick<SharedSettings, "dates" | "int64" | "ownFormats" | "choices">;

/** Lenient: what an app gives. Exact: what it gets. */
export type Stance = "exact" | "lenient";

/** Prints a use of a shape as a TypeScript type. */
export function printReference(reference: Reference, printer: TypePrinter, stance: Stance): string {
  const atoms = reference.nullable ? atomsOf(reference.shape, printer) : undefined;
  // Asked before anything is printed: printing a name makes it an import.
  if (atoms?.length === 0) return "null";
  const text = printShape(reference.shape, printer, stance);
  return !atoms || atoms.includes("unknown") || atoms.includes("null") ? text : `${text} | null`;
}

/** Prints a shape that has no name of its own, or the name of one that has. */
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

/** Tells of the modules that the type of a value without parts comes from. */
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

/** Only reached for the members of a one-of input; every other record of a plan has a name. */
function printInlineRecord(fields: readonly Field[], printer: TypePrinter, stance: Stance): string {
  const parts = fields.map((field) => `${propertyName(field.name)}: ${printReference(field.type, printer, stance)}`);
  return parts.length === 0 ? "Record<string, never>" : `{ ${parts.join("; ")} }`;
}

/** Members for what a later contract may list, which keep the known values in an editor's proposals. */
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
 * The members of a union, without what others already cover: `string | "a"` says no more than `string`. A member that
 * is covered in part, behind a name, is written out as the rest of it.
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
  /** Printed only when it is needed: printing a name makes it an import. */
  readonly text: () => string;
}

/** What a shape is made of once unions, choices and the names of anything but records are opened. */
function leavesOf(
  shape: Shape,
  printer: TypePrinter,
  { stance, seen = new Set<string>() }: { readonly stance: Stance; readonly seen?: Set<string> | undefined },
): Leaf[] {
  if (shape.kind === "named") {
    const type = printer.types.get(shape.key);
    if (type && ["union", "choice", "named"].includes(type.shape.kind)) {
      // A union that has itself as a member, or another one twice, gains nothing by it.
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

/** The tag as its own record, where the member does not already say it as exactly. */
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
  // A literal that contradicts the mapping would make the member impossible; the member's own word counts.
  if (known && !values.some((value) => known.includes(value))) return undefined;
  if (said && !known && said.kind !== "text") return undefined;
  return `{ ${propertyName(field)}: ${values.map(quoted).join(" | ")} }`;
}

/** The shape behind names. */
export function behind(shape: Shape, printer: Pick<TypePrinter, "types">): Shape {
  return resolveShape(shape, printer.types);
}

/** Whether a shape, behind its names, is nothing the contract says anything about. */
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

/** The same printer, telling nobody what it names. */
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
 * What a type comes down to for the compiler, so that two spellings of one type are known as one. Every name is opened
 * once: types that hold each other over and over take no longer than their number.
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

/** What is known of the types that hold others, for a printer's types, settings and scalars. */
interface KnownContainers {
  readonly scalars: TypePrinter["scalars"];
  /** Undefined while a container is looked into that is found in itself. */
  readonly atoms: Map<Shape, string | undefined>;
  /** What stands for a long atom, so that one that holds another twice is not twice as long. */
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

/** Whether no value at all has the shape. */
export function isNever(shape: Shape, printer: TypePrinter): boolean {
  const { kind } = shape;
  return (kind === "named" || kind === "union" || kind === "choice") && atomsOf(shape, printer).length === 0;
}
