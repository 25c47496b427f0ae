import type { Token } from "./token.js";

/** A type in source. */
export interface TypeText {
  /** Its name, part by part; empty for a function type. */
  readonly path: readonly Token[];
  readonly arguments: readonly (TypeText | undefined)[];
  readonly isNullable: boolean;
  readonly function?: FunctionParts<TypeText>;
  /** For a tuple: the labels of its parts. */
  readonly labels?: readonly (string | undefined)[];
}

/** The parts of a function type; undefined if they are unknown. */
export interface FunctionParts<T> {
  readonly receiver: T | undefined;
  readonly parameters: readonly (T | undefined)[];
  readonly result: T | undefined;
}
