import type { Sealed } from "./sealed.js";

/** Values that are edited as a whole. */
type Single = string | number | bigint | boolean | symbol | null | undefined | Date | Uint8Array | Blob;

type Together<Union> = (Union extends unknown ? (each: Union) => void : never) extends (all: infer All) => void
  ? All
  : never;

/** An answer as it is: what its fragments seal is in sight. */
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

/** The item of a list, or of lists in it; what is no list is itself. */
type ItemOf<Value> = unknown extends Value
  ? Value
  : NonNullable<Value> extends infer Given
    ? Given extends readonly (infer Item)[]
      ? ItemOf<Item>
      : Given
    : never;

/** What becomes of a value: another one, or what a function makes of it. */
export type Edit<Value> = Value | ((now: ItemOf<Value>) => EditOf<ItemOf<Value>>);

/** What a function makes: some fields of a record, all of anything else; it stays as it is where that is undefined. */
type EditOf<Item> = unknown extends Item
  ? Item
  : Item extends Single
    ? Item | undefined
    : EditedFields<Item> | undefined;

type EditedFields<Item> = Item extends unknown
  ? { readonly [Name in keyof Item]?: Edit<Item[Name]> | undefined }
  : never;

/** A type that is not guessed from where this stands. */
type Fixed<Value> = [Value][Value extends unknown ? 0 : never];

/**
 * An answer with some of its fields changed, such as for a screen that shows a change before the server has made it. The
 * answer itself stays as it is.
 *
 * @param edit is given the answer, of a list each item, and says which fields change: each to another value, or by a
 * function that is given the value, of a list each item, and of nothing nothing. What is undefined stays
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

/** Whether a value has fields of its own, and is of no class. */
function isRecord(value: unknown): value is object {
  if (typeof value !== "object" || value === null) return false;
  const prototype: unknown = Object.getPrototypeOf(value);
  return prototype === Object.prototype || prototype === null;
}
