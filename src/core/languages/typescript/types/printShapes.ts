import { sentences } from "../../../sdk/lower/sentences.js";
import { eachChild } from "../../../contract/childReferences.js";
import type { Field, RecordShape, Reference, Shape } from "../../../contract/model.js";
import { fieldWords, typeWords } from "../../../sdk/lower/documentation.js";
import { nothingDecoded } from "../../../sdk/lower/values/decodedLeaf.js";
import type { PlannedType } from "../../../sdk/sdkPlan.js";
import { sortedBy } from "../../../text/sortedBy.js";
import { isUnmapped } from "../../isUnmapped.js";
import { docComment, propertyName, quoted } from "../names/escape.js";
import { noUses } from "../moduleUses.js";
import {
  isNever,
  openEnds,
  isUnknown,
  printReference,
  printShape,
  printUnion,
  type Stance,
  type TypePrinter,
} from "./printType.js";

/** Prints the declarations of planned types, sorted by name. */
export function printTypes(types: Iterable<PlannedType>, printer: TypePrinter): string {
  const identified = [...types].map((type) => ({ type, identifier: printer.names.get(type.id) ?? type.name }));
  return sortedBy(identified, ({ identifier }) => identifier)
    .map(({ type, identifier }) => printType(type, identifier, printer))
    .join("\n");
}

function printType(type: PlannedType, identifier: string, printer: TypePrinter): string {
  const stance: Stance = type.face === "request" ? "lenient" : "exact";
  const { shape } = type;
  const doc = docComment(typeWords(type, isUnmapped(shape, printer.scalars)));
  if (shape.kind === "record") return doc + printRecord(shape, identifier, { printer, stance });
  if (shape.kind === "choice" && shape.values.some((choice) => choice.description ?? choice.deprecated))
    return doc + printDescribedChoice(shape, identifier, { printer, stance });
  if (shape.kind === "map" && reaches(shape.value.shape, type.id, printer)) {
    // A type alias cannot refer to itself through Record; an interface can.
    return `${doc}export interface ${identifier} {\n  [key: string]: ${printReference(shape.value, printer, stance)};\n}\n`;
  }
  const text =
    shape.kind === "union"
      ? printUnion(shape, printer, { stance, ownId: type.id })
      : printShape(shape, printer, stance);
  return `${doc}export type ${identifier} =${wrapUnion(text)};\n`;
}

const widestAlias = 90;

function wrapUnion(text: string): string {
  if (text.length <= widestAlias || !text.includes(" | ") || text.startsWith("{")) return ` ${text}`;
  return unionMembers(text)
    .map((member) => `\n  | ${member}`)
    .join("");
}

/** The members of a union as printed: the text between bars outside of brackets and literals. */
function unionMembers(text: string): string[] {
  const members: string[] = [];
  const tokens = /"(?:[^"\\]|\\.)*"|`(?:[^`\\]|\\.)*`|[({[<]|[)}\]]|(?<!=)>| \| /g;
  let depth = 0;
  let from = 0;
  for (let found = tokens.exec(text); found; found = tokens.exec(text)) {
    const [token] = found;
    if (token === " | ") {
      if (depth > 0) continue;
      members.push(text.slice(from, found.index));
      from = tokens.lastIndex;
    } else if (/^[({[<]$/.test(token)) depth++;
    else if (/^[)}\]>]$/.test(token)) depth--;
  }
  return [...members, text.slice(from)];
}

function printDescribedChoice(
  shape: Shape & { kind: "choice" },
  identifier: string,
  { printer, stance }: { readonly printer: TypePrinter; readonly stance: Stance },
): string {
  const members = shape.values.map(({ value, description, deprecated }) => {
    const words = [
      description?.replace(/\s+/g, " "),
      deprecated === undefined ? undefined : `Deprecated. ${deprecated}`.trim(),
    ]
      .filter(Boolean)
      .join(" ");
    return `${docComment({ paragraphs: [words] }, "  ")}  | ${printShape({ kind: "literal", value }, noPrinter, "exact")}`;
  });
  const open = openEnds(shape, printer, stance).map((text) => `  | ${text}`);
  return `export type ${identifier} =\n${[...members, ...open].join("\n")};\n`;
}

const noPrinter: TypePrinter = {
  types: new Map(),
  names: new Map(),
  scalars: new Map(),
  settings: { ...nothingDecoded, choices: "closed" },
  hasWholeFiles: false,
  sealed: new Map(),
  uses: noUses,
};

function printRecord(
  shape: RecordShape,
  identifier: string,
  { printer, stance }: { readonly printer: TypePrinter; readonly stance: Stance },
): string {
  if (shape.oneOf) return printOneOf(shape, identifier, { printer, stance });
  const seals = sealsOf(shape, printer);
  if (shape.fields.length === 0 && !shape.rest && seals !== undefined) return `export type ${identifier} = ${seals};\n`;
  if (shape.fields.length === 0 && !shape.rest)
    return `export type ${identifier} = Record<string, ${shape.closed ? "never" : "unknown"}>;\n`;
  if (shape.fields.length === 0 && shape.rest) {
    return `export type ${identifier} = Record<string, ${printReference(shape.rest, printer, stance)}>;\n`;
  }
  const fields = shape.fields.map((field) => printField(field, printer, stance));
  const rest = shape.rest
    ? [`  /** ${sentences.otherKeys} */\n  [key: string]: ${printRest(shape, shape.rest, { printer, stance })};\n`]
    : [];
  const base = seals === undefined ? "" : ` extends ${seals}`;
  return `export interface ${identifier}${base} {\n${[...fields, ...rest].join("")}}\n`;
}

/** The sealed fragments of a record, by name. */
function sealsOf({ seals = [] }: RecordShape, printer: TypePrinter): string | undefined {
  const parts = seals.flatMap(({ fragment, required }) => {
    const reference = printer.sealed.get(fragment);
    if (!reference) return [];
    const text = printReference(reference, printer, "exact");
    return [`readonly ${propertyName(fragment)}${required ? "" : "?"}: ${text}`];
  });
  if (parts.length === 0) return undefined;
  printer.uses.module("wire", false);
  return `wire.Sealed<{ ${parts.join("; ")} }>`;
}

/** Prints one field of an interface, with its documentation. */
export function printField(field: Field, printer: TypePrinter, stance: Stance): string {
  const doc = docComment(fieldWords(field), "  ");
  const inherited = field.required || isUnknown(field.type.shape, printer) ? "" : orInherited(field.name);
  return `${doc}  ${propertyName(field.name)}${printPresence(field.type, field.required, { printer, stance })}${inherited};\n`;
}

/**
 * Every object has these members, so a field with such a name is never absent: if it is not set, it is the inherited
 * member.
 */
const inheritedMembers = new Set(Object.getOwnPropertyNames(Object.prototype).filter((name) => !name.startsWith("__")));

/** Returns the type to add to an optional property: the inherited member's type for such a name, otherwise "". */
export function orInherited(name: string): string {
  return inheritedMembers.has(name) ? ` | (typeof Object.prototype)[${quoted(name)}]` : "";
}

/** Prints the text after a field's name: whether it may be absent, and its type. */
export function printPresence(
  type: Reference,
  required: boolean,
  { printer, stance }: { readonly printer: TypePrinter; readonly stance: Stance },
): string {
  const isLenient = !required && stance === "lenient" && !isUnknown(type.shape, printer);
  if (isLenient && isNever(type.shape, printer) && !type.nullable) return "?: undefined";
  const text = printReference(type, printer, stance);
  return `${required ? "" : "?"}: ${text}${isLenient ? " | undefined" : ""}`;
}

/** TypeScript requires that every declared field also matches an index signature. */
function printRest(
  shape: RecordShape,
  rest: Reference,
  { printer, stance }: { readonly printer: TypePrinter; readonly stance: Stance },
): string {
  if (shape.fields.some((field) => !field.required && inheritedMembers.has(field.name))) return "unknown";
  const members = [rest, ...shape.fields.map((field) => field.type)];
  const union = printUnion({ kind: "union", members }, printer, { stance });
  const absent = shape.fields.some((field) => !field.required);
  if (union === "unknown" || !absent) return union;
  return union === "never" ? "undefined" : `${union} | undefined`;
}

function printOneOf(
  shape: RecordShape,
  identifier: string,
  { printer, stance }: { readonly printer: TypePrinter; readonly stance: Stance },
): string {
  const members = shape.fields.map((chosen) =>
    shape.fields
      .map((field) =>
        field === chosen
          ? `${propertyName(field.name)}: ${printReference({ ...field.type, nullable: false }, printer, stance)}`
          : `${propertyName(field.name)}?: never`,
      )
      .join("; "),
  );
  return `export type ${identifier} =${members.map((member) => `\n  | { ${member} }`).join("")};\n`;
}

function reaches(shape: Shape, id: string, printer: TypePrinter): boolean {
  const seen = new Set<string>();
  const open: Shape[] = [shape];
  for (let next = open.pop(); next; next = open.pop()) {
    if (next.kind === "named") {
      if (next.key === id) return true;
      if (seen.has(next.key)) continue;
      seen.add(next.key);
      const inner = printer.types.get(next.key)?.shape;
      // A record is an interface, which may refer to itself. Only aliases must be checked.
      if (inner && inner.kind !== "record") open.push(inner);
    } else eachChild(next, (child) => open.push(child.shape));
  }
  return false;
}
