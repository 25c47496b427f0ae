import type { Type } from "./knownProgram.js";

/** The effect of a function of the language or a common library, as far as types follow from it. */
export interface KnownCall {
  /** The parameter types of its lambdas. */
  readonly given?: readonly (Type | undefined)[];
  /** The type of `this` in its lambdas. */
  readonly inside?: Type | undefined;
  /** Whether it only converts its arguments to text. */
  readonly shows?: boolean;
  /** Whether it only sorts values by the result of its lambda. */
  readonly orders?: boolean;
  /** Whether its result contains its arguments, or the results of its lambda, unchanged. */
  readonly holds?: boolean;
  /** Whether its result is one of the values of its receiver, or some of them. */
  readonly keeps?: boolean;
  /** @param made the result of its last lambda, or its first argument */
  readonly result: (made: Type | undefined) => Type | undefined;
}

/** An argument of a function of the language. */
export interface GivenType {
  /** Its label. */
  readonly name: string | undefined;
  readonly type: Type | undefined;
}

/** Returns a type of the language. */
export function builtIn(name: string, ...given: readonly (Type | undefined)[]): Type {
  return { name, arguments: given, isNullable: false };
}

/** The known types and functions of a language and of common libraries. */
export interface Library {
  readonly isContainer: (type: Type | undefined) => boolean;
  /** The supertypes of all containers. */
  readonly generalContainers: ReadonlySet<string>;
  /** Returns whether a type is the language's, so that its members are not an SDK's. */
  readonly isPlain: (type: Type | undefined) => boolean;
  /** Returns the type of a property that an object of a type supplies. */
  readonly delegated: (type: Type | undefined) => Type | undefined;
  /**
   * Returns what a method does; undefined if it is unknown.
   *
   * @param given the arguments that are known so far
   */
  readonly calledOn: (type: Type | undefined, name: string, given: readonly GivenType[]) => KnownCall | undefined;
  /**
   * Returns what a top-level function does; undefined if it is unknown.
   *
   * @param given the arguments that are known so far
   */
  readonly calledAlone: (
    name: string,
    given: readonly GivenType[],
    typeArguments: readonly (Type | undefined)[],
  ) => KnownCall | undefined;
}
