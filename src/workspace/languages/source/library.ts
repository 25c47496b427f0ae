import type { Type } from "./knownProgram.js";

/** What a function of the language or a usual library gives, as far as types follow from it. */
export interface KnownCall {
  /** What its lambdas are given. */
  readonly given?: readonly (Type | undefined)[];
  /** What is `this` in its lambdas. */
  readonly inside?: Type | undefined;
  /** It makes a text of its arguments, and nothing else. */
  readonly shows?: boolean;
  /** It only puts values in order by what its lambda gives. */
  readonly orders?: boolean;
  /** What it gives holds its arguments, or what its lambda gives, as they are. */
  readonly holds?: boolean;
  /** What it gives is one of the values that it is called on, or some of them. */
  readonly keeps?: boolean;
  /** @param made what its last lambda, or its first argument, makes */
  readonly result: (made: Type | undefined) => Type | undefined;
}

/** A type of the language. */
export function builtIn(name: string, ...given: readonly (Type | undefined)[]): Type {
  return { name, arguments: given, isNullable: false };
}

/** What is known of a language's own types and of usual libraries. */
export interface Library {
  readonly isContainer: (type: Type | undefined) => boolean;
  /** What stands for any container. */
  readonly generalContainers: ReadonlySet<string>;
  /** Whether a type is of the language, and its members are none of an SDK's. */
  readonly isPlain: (type: Type | undefined) => boolean;
  /** The type of a property that another object, of a type, supplies. */
  readonly delegated: (type: Type | undefined) => Type | undefined;
  /** What a function does that is called on a value; undefined where it is not known. */
  readonly calledOn: (type: Type | undefined, name: string) => KnownCall | undefined;
  /** What a function does that stands alone; undefined where it is not known. */
  readonly calledAlone: (
    name: string,
    first: Type | undefined,
    typeArgument: Type | undefined,
  ) => KnownCall | undefined;
}
