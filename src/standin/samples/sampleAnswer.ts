import type { Constraints, Field, Reference, Shape } from "../../core/contract/model.js";
import type { Place } from "../../core/problem/place.js";
import { resolveReference, type TypeTable } from "../../core/contract/resolveShape.js";
import { isData } from "../../core/text/parseData.js";
import { sampledName, sampleText } from "./sampleText.js";
import type { SampleBudget } from "./sampleBudget.js";
import type { Fake } from "./seededFaker.js";

const deepest = 4;
const endless = 14;
const outerLists = 2;
const oneIn = 6;

export interface SampleContext {
  readonly types: TypeTable;
  readonly fake: Fake;
  /** The remaining size. When it is used up, no more values are made. */
  readonly budget: SampleBudget;
  /** The values of fields with these names, from the request. */
  readonly known: ReadonlyMap<string, unknown>;
  /** Returns whether the raw contract allows a value at its schema's place. */
  readonly fits: (place: Place, value: unknown) => boolean;
  readonly depth: number;
  /** The default values of fields in the outermost record, by name. */
  readonly usual?: ReadonlyMap<string, unknown>;
  /** The depth of the record with the known values: 1, and more if a union is around it. */
  readonly knownAt?: number;
  /**
   * Whether the known values are complete, or complete as far as they could be sent. Optional fields without a known
   * value are then left out.
   */
  readonly isWhole?: "all" | "as sent";
  /** Whether the value is for a request, not a response. */
  readonly direction?: "request";
  /** Whether it is the second or a later item of a list: the first one used the example of an id. */
  readonly isRepeated?: boolean;
}

/**
 * Returns a value of a shape for a response: the contract's examples first, otherwise made up.
 *
 * @returns undefined if no value ends
 */
export function sampleAnswer(reference: Reference, name: string, context: SampleContext): unknown {
  // No real value is this deep. A type without an end has no value.
  if (context.depth > endless || !context.budget.take()) return undefined;
  const definition = reference.shape.kind === "named" ? context.types.get(reference.shape.key) : undefined;
  const example = definition && exampleOf(definition.example, context);
  if (definition && example !== undefined && context.fits(definition.place, example)) return example;
  const { shape, nullable } = resolveReference(reference, context.types);
  if (nullable && (context.depth > deepest || /next|cursor/i.test(name) || rarely(context))) return null;
  return sampleShape(shape, name, { ...context, depth: context.depth + 1 }) ?? (nullable ? null : undefined);
}

/**
 * A definition's own example, with the known values in it. Later items of a list have none, because all would be the
 * same.
 */
function exampleOf(example: unknown, { depth, known, knownAt = 1, isRepeated }: SampleContext): unknown {
  if (!isData(example)) return example;
  if (isRepeated === true) return undefined;
  if (depth + 1 !== knownAt || known.size === 0) return example;
  return { ...example, ...Object.fromEntries([...known].filter(([name]) => Object.hasOwn(example, name))) };
}

function rarely({ fake }: SampleContext): boolean {
  return fake.number.int({ min: 1, max: oneIn }) === 1;
}

function sampleShape(shape: Shape, name: string, context: SampleContext): unknown {
  const { fake } = context;
  switch (shape.kind) {
    case "text":
      return sampledText(name, shape, context);
    case "integer":
      return sampleNumber(shape.constraints ?? {}, 0, fake);
    case "number":
      return sampleNumber(shape.constraints ?? {}, 1, fake);
    case "boolean":
      return /hasNext|hasMore|hasPrevious/i.test(name) ? false : fake.datatype.boolean();
    case "literal":
      return shape.value;
    case "choice":
      return fake.helpers.arrayElement(shape.values).value;
    case "record":
      return sampleRecord(shape.fields, context);
    case "list":
      return sampleList(shape.item, name, { constraints: shape.constraints ?? {}, context });
    case "map":
      return sampleMap(shape.value, name, context);
    case "tuple": {
      const items = shape.items.map((item) => sampleAnswer(item, name, context));
      const missing = items.indexOf(undefined);
      if (missing < 0) return items;
      return missing < (shape.needed ?? items.length) ? undefined : items.slice(0, missing);
    }
    case "union":
      return sampleUnion(shape, name, context);
    case "bytes":
      return fake.lorem.words(4);
    case "any":
      return fake.lorem.word();
    case "named":
      return null;
  }
}

function sampledText(
  name: string,
  { format, constraints = {} }: Shape & { kind: "text" },
  context: SampleContext,
): string {
  const text = sampleText(name, format, { constraints, fake: context.fake });
  context.budget.takeText(text);
  return text;
}

function sampleMap(value: Reference, name: string, context: SampleContext): Record<string, unknown> {
  const sample = context.depth > deepest ? undefined : sampleAnswer(value, name, context);
  return sample === undefined ? {} : { [context.fake.lorem.word()]: sample };
}

function sampleRecord(fields: readonly Field[], context: SampleContext): Record<string, unknown> | undefined {
  const record: Record<string, unknown> = {};
  const set = (name: string, value: unknown): void => {
    if (name !== "__proto__") record[name] = value;
    else Object.defineProperty(record, name, { value, enumerable: true, writable: true, configurable: true });
  };
  for (const field of fields) {
    if (field.face === (context.direction === "request" ? "answer" : "request")) continue;
    // The request's values are for the response itself, not for objects inside it.
    const told = context.depth === (context.knownAt ?? 1) ? context.known.get(field.name) : undefined;
    const isLeftOut =
      !field.required &&
      context.depth === (context.knownAt ?? 1) &&
      (context.isWhole === "all" || (context.isWhole === "as sent" && field.face !== "answer"));
    if (told !== undefined && suits(field, told, context)) set(field.name, told);
    else if (isLeftOut) continue;
    else if (!field.required && (context.depth > deepest || rarely(context))) continue;
    else if (
      field.example !== undefined &&
      !(context.isRepeated && /id$/i.test(field.name)) &&
      suits(field, field.example, context)
    )
      set(field.name, field.example);
    else if (isUsual(field, context)) set(field.name, context.usual?.get(field.name));
    else {
      const value = sampleAnswer(
        field.type,
        sampledName(field.name, () => fields),
        context,
      );
      if (value !== undefined) set(field.name, value);
      else if (field.required) return undefined;
    }
  }
  return record;
}

/** Whether a field of the outermost record has its default value. */
function isUsual(field: Field, context: SampleContext): boolean {
  const value = context.depth === 1 ? context.usual?.get(field.name) : undefined;
  return value !== undefined && suits(field, value, context) && context.fits(field.place, value);
}

/** Whether a value that was not made up is valid for a field: several schemas of the field have only one place. */
function suits({ type, place }: Field, value: unknown, context: SampleContext): boolean {
  const { shape } = resolveReference(type, context.types);
  const kind = Array.isArray(value) ? "list" : value === null ? "null" : typeof value;
  const kinds: Readonly<Partial<Record<Shape["kind"], string>>> = {
    text: "string",
    integer: "number",
    number: "number",
    boolean: "boolean",
    list: "list",
    tuple: "list",
    record: "object",
    map: "object",
  };
  const values = shape.kind === "literal" ? [shape] : shape.kind === "choice" ? shape.values : undefined;
  if (values && value !== null && !values.some((each) => each.value === value)) return false;
  const wanted = kinds[shape.kind] ?? kind;
  return (wanted === kind || (kind === "null" && type.nullable)) && context.fits(place, value);
}

function sampleList(
  item: Reference,
  name: string,
  {
    constraints: { minItems = 0, maxItems = 4 },
    context,
  }: { readonly constraints: Constraints; readonly context: SampleContext },
): unknown[] | undefined {
  if (context.depth > deepest && minItems === 0) return [];
  // A list has a few items. A list inside each of them has one or two, so that responses stay readable.
  const [few, most] = context.depth > outerLists ? [1, 2] : [2, 4];
  const length = context.fake.number.int({
    min: Math.min(Math.max(minItems, few), maxItems),
    max: Math.max(minItems, Math.min(maxItems, most)),
  });
  // The values for a single item are not for each of many.
  const budget = context.budget.lend();
  const inside = { ...context, budget, known: new Map<string, unknown>() };
  const items: unknown[] = [];
  let isEndless = false;
  while (items.length < length && !isEndless && !budget.isSpent) {
    const value = sampleAnswer(item, name.replace(/s$/, ""), { ...inside, isRepeated: items.length > 0 });
    // An incomplete value is left out, and so are those after it.
    if (value !== undefined) items.push(value);
    else isEndless = true;
  }
  isEndless &&= !budget.isSpent;
  context.budget.settle(budget);
  if (!isEndless) return items;
  return minItems === 0 ? [] : undefined;
}

function sampleUnion(shape: Shape & { kind: "union" }, name: string, context: SampleContext): unknown {
  if (shape.members.length === 0) return undefined;
  const any = context.fake.number.int({ min: 0, max: shape.members.length - 1 });
  const isAbout = context.depth === (context.knownAt ?? 1) && context.known.size > 0;
  const told = isAbout ? toldMember(shape, context) : undefined;
  // At great depth, members that end come first.
  const rank = (at: number): number =>
    at === told ? -1 : context.depth > deepest && !isLeaf(shape.members[at]?.shape) ? 2 : at === any ? 0 : 1;
  const order = shape.members.map((_, at) => at).sort((a, b) => rank(a) - rank(b));
  for (const at of order) {
    const member = shape.members[at];
    const value = member && sampleAnswer(member, name, isAbout ? { ...context, knownAt: context.depth + 1 } : context);
    if (value === undefined) continue;
    const [tag] = shape.tag?.values[at] ?? [];
    return shape.tag && tag !== undefined && typeof value === "object" && value !== null
      ? { ...value, [shape.tag.field]: tag }
      : value;
  }
  return undefined;
}

/** The member for the known values: by tag, otherwise the one with most of the fields. */
function toldMember({ members, tag }: Shape & { kind: "union" }, { known, types }: SampleContext): number | undefined {
  const said = tag && known.get(tag.field);
  if (tag && typeof said === "string") {
    const at = tag.values.findIndex((values) => values.includes(said));
    return at < 0 ? undefined : at;
  }
  const counts = members.map((member) => {
    const { shape } = resolveReference(member, types);
    return shape.kind === "record" ? shape.fields.filter(({ name }) => known.has(name)).length : 0;
  });
  const most = Math.max(...counts);
  return most > 0 ? counts.indexOf(most) : undefined;
}

function isLeaf(shape: Shape | undefined): boolean {
  return shape !== undefined && !["named", "record", "map", "list", "tuple", "union"].includes(shape.kind);
}

function sampleNumber(limits: Constraints, digits: number, fake: Fake): number {
  const step = digits === 0 ? 1 : 0.1;
  const min = limits.minimum ?? (limits.exclusiveMinimum === undefined ? undefined : limits.exclusiveMinimum + step);
  const max = limits.maximum ?? (limits.exclusiveMaximum === undefined ? undefined : limits.exclusiveMaximum - step);
  const low = min ?? Math.min(1, max ?? 1);
  const high = max ?? Math.max(low, low + 99);
  if (limits.multipleOf !== undefined && limits.multipleOf > 0) {
    const first = Math.ceil(low / limits.multipleOf);
    return (
      limits.multipleOf * fake.number.int({ min: first, max: Math.max(first, Math.floor(high / limits.multipleOf)) })
    );
  }
  if (digits === 0) return fake.number.int({ min: Math.ceil(low), max: Math.max(Math.ceil(low), Math.floor(high)) });
  return Math.min(high, Math.max(low, Math.round(fake.number.float({ min: low, max: high }) * 10) / 10));
}
