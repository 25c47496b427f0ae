import type { Sealed } from "./sealed.js";

/** Values that are replaced as a whole. */
type Single = string | number | bigint | boolean | symbol | null | undefined | Date | Uint8Array | Blob;

type Together<Union> = (Union extends unknown ? (each: Union) => void : never) extends (all: infer All) => void
  ? All
  : never;

/** A response with the fields of all its fragments visible. */
export type Open<Value> = unknown extends Value
  ? Value
  : Value extends Single
    ? Value
    : Value extends readonly (infer Item)[]
      ? readonly Open<Item>[]
      : Value extends Sealed<infer Parts>
        ? OpenFields<Value> & Together<Open<NonNullable<Parts[keyof Parts]>>>
        : OpenFields<Value>;

type OpenFields<Value> = { [Name in keyof Value as Name extends string ? Name : never]: Open<Value[Name]> };

/** The item of a list, also of nested lists. A value that is not a list is itself. */
type ItemOf<Value> = unknown extends Value
  ? Value
  : NonNullable<Value> extends infer Given
    ? Given extends readonly (infer Item)[]
      ? ItemOf<Item>
      : Given
    : never;

/** The change of a value: another value, or the result of a function. */
export type Edit<Value> = Value | ((now: ItemOf<Value>) => EditOf<ItemOf<Value>>);

/** The result of that function: some fields of an object, or a whole value. Undefined keeps the old value. */
type EditOf<Item> = unknown extends Item
  ? Item
  : Item extends Single
    ? Item | undefined
    : EditedFields<Item> | undefined;

type EditedFields<Item> = Item extends unknown
  ? { readonly [Name in keyof Item]?: Edit<Item[Name]> | undefined }
  : never;

/** A type that the compiler does not infer from this position. */
type Fixed<Value> = [Value][Value extends unknown ? 0 : never];

/**
 * Returns a copy of a response with some fields changed, for example for a screen that shows a change before the server
 * has made it.
 *
 * @param edit receives the response, or each item of a list, and returns the fields to change. A field changes to
 * another value, or by a function that receives the value, or each item of a list. Null stays null, and a field that is
 * undefined stays as it is
 */
export function edited<Answer>(
  answer: Answer,
  edit: (now: ItemOf<Open<Fixed<Answer>>>) => EditOf<ItemOf<Open<Fixed<Answer>>>>,
): Answer {
  return editedBy(answer, edit as (now: unknown) => unknown) as Answer;
}

function editedBy(value: unknown, edit: (now: unknown) => unknown): unknown {
  if (value === null || value === undefined) return value;
  if (Array.isArray(value)) return value.map((item) => editedBy(item, edit));
  const made = edit(value);
  if (made === undefined) return value;
  return isRecord(value) && isRecord(made) ? withFields(value, made) : made;
}

function withFields(value: object, fields: object): unknown {
  const entries = new Map<string, unknown>(Object.entries(value));
  for (const [name, field] of Object.entries(fields)) {
    if (field === undefined) continue;
    entries.set(
      name,
      typeof field === "function" ? editedBy(entries.get(name), field as (now: unknown) => unknown) : field,
    );
  }
  return Object.fromEntries(entries);
}

/** Whether a value is a plain object. */
function isRecord(value: unknown): value is object {
  if (typeof value !== "object" || value === null) return false;
  const prototype: unknown = Object.getPrototypeOf(value);
  return prototype === Object.prototype || prototype === null;
}
