/** Never there at run time: only the compiler knows how a value is sealed. */
declare const seal: unique symbol;

/** A response in which the fields of fragments are not visible. `unseal` shows those of one fragment. */
export interface Sealed<Parts> {
  readonly [seal]: Parts;
}

/** A value, a list or null, with the fields of one of its fragments visible. */
export type Unsealed<Value, Name> = Value extends readonly (infer Item)[]
  ? readonly Unsealed<Item, Name>[]
  : Value extends Sealed<infer Parts>
    ? Name extends keyof Parts
      ? Parts[Name]
      : never
    : Value;

type PartsOf<Value> = Value extends readonly (infer Item)[]
  ? PartsOf<Item>
  : Value extends Sealed<infer Parts>
    ? Parts
    : Value extends null | undefined
      ? never
      : unknown;

/** The names of the fragments that are sealed in a value, for every member of a union. */
export type SealsOf<Value> = keyof PartsOf<Value>;

/** Shows the fields of a fragment, of a value or of every list item; null stays null. */
export function unseal<Value, Name extends SealsOf<Value> & string>(
  _fragment: Name,
  value: Value,
): Unsealed<Value, Name> {
  return value as Unsealed<Value, Name>;
}
