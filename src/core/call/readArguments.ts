import type { Reference, Shape } from "../contract/model.js";
import { resolveReference, type ShapeTable } from "../contract/resolveShape.js";
import { shapeWords } from "../contract/shapeWords.js";
import { didYouMean } from "../text/nearest.js";

/** An argument of a call, by its name in the SDK. */
export interface TakenArgument {
  readonly name: string;
  readonly type: Reference;
  readonly required: boolean;
}

/** An argument as the user wrote it: "berthId=B12", "body.from=2031-05-01". */
export interface WrittenArgument {
  readonly path: string;
  readonly value: string;
}

/** An error in a written argument. */
export interface ArgumentFault {
  readonly path: string;
  /** The rest of a sentence that begins with the argument. */
  readonly why: string;
  readonly hint: string | undefined;
}

export interface ReadArguments {
  readonly values: Readonly<Record<string, unknown>>;
  readonly faults: readonly ArgumentFault[];
}

/** The facts that reading arguments needs. */
export interface ReadingArguments {
  readonly types: ShapeTable;
  /**
   * Returns a file by its path, as bytes and as text; undefined if it cannot be read. Without this function, no file is
   * read.
   */
  readonly fileOf?: (path: string) => File | undefined;
  readonly textOf?: (path: string) => string | undefined;
}

/**
 * Converts the written arguments of a call to values of their types. Numbers and enum values are checked, lists may
 * have commas, and any value may be JSON. A path leads into records and lists: "body.lines[0].text". "@" and a path
 * mean a file, for bytes or JSON.
 *
 * @param written the arguments in order
 * @param taken the arguments of the call
 * @returns the values by argument name, and the errors
 */
export function readArguments(
  written: readonly WrittenArgument[],
  taken: readonly TakenArgument[],
  reading: ReadingArguments,
): ReadArguments {
  const values: Record<string, unknown> = Object.create(null) as Record<string, unknown>;
  const faults: ArgumentFault[] = [];
  for (const { path, value } of written) {
    const [name = "", ...rest] = stepsOf(path);
    const argument = taken.find((each) => each.name === name);
    if (argument === undefined) {
      faults.push({ path, why: "is not an argument of this call", hint: hintFor(name, taken) });
      continue;
    }
    const fault = put(values, [name, ...rest], { text: value, type: argument.type, reading });
    if (fault) faults.push({ path, ...fault });
  }
  return { values: { ...values }, faults };
}

function hintFor(name: string, taken: readonly TakenArgument[]): string {
  const names = taken.map((each) => each.name);
  const all = names.length === 0 ? "It has none." : `It has ${names.join(", ")}.`;
  return didYouMean(name, names) ?? all;
}

function stepsOf(path: string): string[] {
  return [...path.matchAll(/([^.[\]]+)|\[(\d*)\]/g)].map(([, name, at]) => name ?? `[${at ?? ""}]`);
}

type Fault = Pick<ArgumentFault, "why" | "hint">;

/** Sets the value at a path, and creates the records and lists on the way. */
function put(
  into: Record<string, unknown>,
  path: readonly string[],
  { text, type, reading }: { readonly text: string; readonly type: Reference; readonly reading: ReadingArguments },
): Fault | undefined {
  const { types } = reading;
  let holder: unknown = into;
  let key: string | number = path[0] ?? "";
  let reference = type;
  for (const step of path.slice(1)) {
    const shape = resolveReference(reference, types).shape;
    const below = memberOf(shape, step, types);
    if ("why" in below) return below;
    reference = below.type;
    const known = read(holder, key);
    const next: unknown = known ?? (step.startsWith("[") ? [] : (Object.create(null) as object));
    write(holder, key, next);
    holder = next;
    key = step.startsWith("[") ? (step === "[]" ? (next as unknown[]).length : Number(step.slice(1, -1))) : step;
  }
  const made = valueOf(text, reference, reading);
  if ("why" in made) return made;
  write(holder, key, made.value);
  return undefined;
}

function read(holder: unknown, key: string | number): unknown {
  return typeof holder === "object" && holder !== null && Object.hasOwn(holder, key)
    ? (holder as Record<string | number, unknown>)[key]
    : undefined;
}

function write(holder: unknown, key: string | number, value: unknown): void {
  Object.defineProperty(holder, key, { value, enumerable: true, configurable: true, writable: true });
}

function memberOf(shape: Shape, step: string, types: ShapeTable): { readonly type: Reference } | Fault {
  if (step.startsWith("[")) {
    if (shape.kind === "list") return { type: shape.item };
    return shape.kind === "any" || shape.kind === "union" ? anything : { why: "is not a list", hint: undefined };
  }
  if (shape.kind === "map") return { type: shape.value };
  if (shape.kind === "any") return anything;
  // Any member with the field is accepted; the server decides.
  const records = shape.kind === "union" ? shape.members.map((each) => resolveReference(each, types).shape) : [shape];
  const fields = records.flatMap((each) => (each.kind === "record" ? each.fields : []));
  const found = fields.find((each) => each.name === step);
  if (found) return { type: found.type };
  const rest = records.flatMap((each) => (each.kind === "record" && each.rest ? [each.rest] : []))[0];
  if (rest) return { type: rest };
  if (fields.length === 0) return { why: `is ${shapeWords(shape)}, which has no \`${step}\``, hint: undefined };
  const names = fields.map(({ name }) => name);
  return { why: `has no field \`${step}\``, hint: didYouMean(step, names) ?? `It has ${names.join(", ")}.` };
}

const anything = { type: { shape: { kind: "any" }, nullable: true } as const };

/** Converts a text to a value of a type. */
function valueOf(text: string, reference: Reference, reading: ReadingArguments): { readonly value: unknown } | Fault {
  const { shape, nullable } = resolveReference(reference, reading.types);
  if (text === "null" && nullable) return { value: null };
  switch (shape.kind) {
    case "text":
      return { value: text };
    case "bytes":
      return bytes(text, reading);
    case "integer":
    case "number":
      if (
        /^-?\d+(?:\.\d+)?(?:[eE][+-]?\d+)?$/.test(text) &&
        (shape.kind === "number" || Number.isInteger(Number(text)))
      )
        return { value: Number(text) };
      return { why: `must be ${shapeWords(shape)}, but got \`${text}\``, hint: undefined };
    case "boolean":
      if (text === "true" || text === "false") return { value: text === "true" };
      return { why: `must be true or false, but got \`${text}\``, hint: undefined };
    case "literal":
    case "choice": {
      const values = shape.kind === "literal" ? [shape.value] : shape.values.map((each) => each.value);
      const found = values.find((each) => String(each) === text);
      const names = values.map(String);
      if (found !== undefined) return { value: found };
      return {
        why: `must be one of ${names.join(", ")}, but got \`${text}\``,
        hint: didYouMean(text, names),
      };
    }
    case "list": {
      if (text.startsWith("[")) return json(text, shape, reading);
      const items = text === "" ? [] : text.split(",").map((item) => valueOf(item, shape.item, reading));
      const fault = items.find((item) => "why" in item);
      return fault ?? { value: items.map((item) => ("value" in item ? item.value : undefined)) };
    }
    case "union":
    case "any": {
      const made = json(text, shape, reading);
      return "why" in made ? { value: text } : made;
    }
    default:
      return json(text, shape, reading);
  }
}

/** Returns the bytes of a text, or of the file after "@". Two "@" mean a text with one. */
function bytes(text: string, { fileOf }: ReadingArguments): { readonly value: unknown } | Fault {
  if (!fileOf || !text.startsWith("@")) return { value: new Blob([text]) };
  if (text.startsWith("@@")) return { value: new Blob([text.slice(1)]) };
  const file = fileOf(text.slice(1));
  return file ? { value: file } : missing(text);
}

function missing(text: string): Fault {
  return {
    why: `refers to the file \`${text.slice(1)}\`, which cannot be read`,
    hint: "Name it from this folder: @photo.png.",
  };
}

function json(given: string, shape: Shape, { textOf }: ReadingArguments): { readonly value: unknown } | Fault {
  const text = textOf && given.startsWith("@") ? textOf(given.slice(1)) : given;
  if (text === undefined) return missing(given);
  try {
    return { value: JSON.parse(text) as unknown };
  } catch {
    return {
      why: `must be ${shapeWords(shape)} as JSON, but got \`${text}\``,
      hint: "Set its fields one by one: body.field=value.",
    };
  }
}
