import type { Constraints, Field, Reference, Shape } from "../core/contract/model.js";
import { resolveReference, type TypeTable } from "../core/contract/resolveShape.js";
import { sampleText } from "./sampleText.js";
import type { Fake } from "./seededFaker.js";

const deepest = 6;
const oneIn = 6;

export interface SampleContext {
  readonly types: TypeTable;
  readonly fake: Fake;
  /** Values that fields of these names take: what the request said. */
  readonly known: ReadonlyMap<string, unknown>;
  readonly depth: number;
  /** The second or a later item of a list: an example of an id was used by the first. */
  readonly isRepeated?: boolean;
}

/** A value of the shape a contract promises in answers: its examples first, else made up. */
export function sampleAnswer(reference: Reference, name: string, context: SampleContext): unknown {
  const example = reference.shape.kind === "named" ? context.types.get(reference.shape.key)?.example : undefined;
  if (example !== undefined) return example;
  const { shape, nullable } = resolveReference(reference, context.types);
  if (nullable && (context.depth > deepest || /next|cursor/i.test(name) || rarely(context))) return null;
  return sampleShape(shape, name, { ...context, depth: context.depth + 1 });
}

function rarely({ fake }: SampleContext): boolean {
  return fake.number.int({ min: 1, max: oneIn }) === 1;
}

function sampleShape(shape: Shape, name: string, context: SampleContext): unknown {
  const { fake } = context;
  switch (shape.kind) {
    case "text":
      return sampleText(name, shape.format, shape.constraints ?? {}, fake);
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
      return sampleList(shape.item, name, shape.constraints ?? {}, context);
    case "map":
      return context.depth > deepest ? {} : { [fake.lorem.word()]: sampleAnswer(shape.value, name, context) };
    case "tuple":
      return shape.items.map((item) => sampleAnswer(item, name, context));
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

function sampleRecord(fields: readonly Field[], context: SampleContext): Record<string, unknown> {
  const record: Record<string, unknown> = {};
  const set = (name: string, value: unknown): void => {
    // Defined, not assigned: a field may be called `__proto__`.
    Object.defineProperty(record, name, { value, enumerable: true, writable: true, configurable: true });
  };
  for (const field of fields) {
    if (field.face === "request") continue;
    // What the request said is about the answer itself, not about what is inside it.
    const told = context.depth === 1 ? context.known.get(field.name) : undefined;
    if (told !== undefined) set(field.name, told);
    else if (!field.required && (context.depth > deepest || rarely(context))) continue;
    else if (field.example !== undefined && !(context.isRepeated && /id$/i.test(field.name)))
      set(field.name, field.example);
    else set(field.name, sampleAnswer(field.type, field.name, context));
  }
  return record;
}

function sampleList(
  item: Reference,
  name: string,
  { minItems = 0, maxItems = 4 }: Constraints,
  context: SampleContext,
): unknown[] {
  if (context.depth > deepest && minItems === 0) return [];
  const length = context.fake.number.int({
    min: Math.min(Math.max(minItems, 2), maxItems),
    max: Math.max(minItems, Math.min(maxItems, 4)),
  });
  // What a single thing was asked by does not hold for each of many.
  const inside = { ...context, known: new Map<string, unknown>() };
  return Array.from({ length }, (_, at) =>
    sampleAnswer(item, name.replace(/s$/, ""), { ...inside, isRepeated: at > 0 }),
  );
}

function sampleUnion(shape: Shape & { kind: "union" }, name: string, context: SampleContext): unknown {
  if (shape.members.length === 0) return null;
  const at = context.fake.number.int({ min: 0, max: shape.members.length - 1 });
  const member = shape.members[at] ?? shape.members[0];
  if (!member) return null;
  const value = sampleAnswer(member, name, context);
  const [tag] = shape.tag?.values[at] ?? [];
  return shape.tag && tag !== undefined && typeof value === "object" && value !== null
    ? { ...value, [shape.tag.field]: tag }
    : value;
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
