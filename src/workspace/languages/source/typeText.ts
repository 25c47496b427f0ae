import type { Token } from "./token.js";

/** A type as source spells it. */
export interface TypeText {
  /** Its name, part by part; of a function type nothing. */
  readonly path: readonly Token[];
  readonly arguments: readonly (TypeText | undefined)[];
  readonly isNullable: boolean;
  readonly function?: FunctionParts<TypeText>;
  /** Of a tuple: what its parts are called. */
  readonly labels?: readonly (string | undefined)[];
}

/** What a function type says; undefined where nobody knows. */
export interface FunctionParts<T> {
  readonly receiver: T | undefined;
  readonly parameters: readonly (T | undefined)[];
  readonly result: T | undefined;
}
