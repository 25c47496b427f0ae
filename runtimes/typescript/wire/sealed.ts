/** Never there when the app runs: what a value is sealed as is known to the compiler alone. */
declare const seal: unique symbol;

/** An answer in which the fields of fragments are not seen; `unseal` shows those of one. */
export interface Sealed<Parts> {
  readonly [seal]: Parts;
}

/** A value, or list, or nothing, with the fields of one of its fragments in sight. */
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

/** The names of the fragments that a value is sealed as, whichever member of a union it is. */
export type SealsOf<Value> = keyof PartsOf<Value>;

/** Shows the fields of a fragment: of a value, of every item of a list, and of nothing nothing. */
export function unseal<Value, Name extends SealsOf<Value> & string>(
  _fragment: Name,
  value: Value,
): Unsealed<Value, Name> {
  return value as Unsealed<Value, Name>;
}
