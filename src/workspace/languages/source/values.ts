import type { Coordinate } from "../../../core/use/coordinate.js";
import type { Told } from "./told.js";
import type { SourceUseKind } from "../../../core/use/sourceUse.js";
import type { ParameterText } from "./declared.js";
import type { KnownClass, Type } from "./knownProgram.js";
import type { Reader } from "./reader.js";
import type { Scope } from "./scope.js";
import { builtIn, type KnownCall } from "./library.js";
import type { Token } from "./token.js";

/** What is known of the value of an expression. */
export interface Value {
  readonly type?: Type | undefined;
  /** The expression names a class, and no value. */
  readonly named?: KnownClass;
  /** The call of the SDK that answers it. */
  readonly called?: Token;
  /** Members of the SDK whose value it is. */
  readonly read?: readonly Told[] | undefined;
  /** Members of the SDK that it was calculated from, all of them numbers. */
  readonly computed?: readonly Told[] | undefined;
  /** The place of a variable that holds such a value: what is done with the value here. */
  readonly held?: Told | undefined;
  /** Of a pair: the members of the SDK whose values its two are. */
  readonly parts?: readonly (readonly Told[])[];
  /** It is a whole number that is written out. */
  readonly isWritten?: boolean;
  /** It is a path of names that can be narrowed. */
  readonly path?: string;
  /** A constant of a choice, of which it is not said yet what is done with it. */
  readonly constant?: { readonly coordinate: Coordinate; readonly token: Token };
  /** What is known where it holds, and where it does not. */
  readonly holds?: readonly Narrowing[];
  readonly fails?: readonly Narrowing[];
}

export interface Narrowing {
  readonly path: string;
  readonly type: Type;
}

/** An argument of a call. */
export interface Given {
  readonly name: string | undefined;
  readonly token: Token;
  readonly type: Type | undefined;
  /** Members of the SDK whose value it is, or, for a lambda, what it gives. */
  readonly read: readonly Told[];
  /** Members of the SDK that it was calculated from. */
  readonly computed: readonly Told[];
  readonly held: Told | undefined;
  readonly isLambda: boolean;
  /** It does not say its type, in languages where a value need not. */
  readonly isUntyped?: boolean;
}

/** A call in source: its name, and what stands behind it. */
export interface CallSite {
  readonly token: Token;
  readonly typeArguments: readonly (Type | undefined)[];
  readonly reader: Reader;
  readonly scope: Scope;
  /** The type that its value has to have. */
  readonly wanted?: Type | undefined;
}

/** What a function takes. */
export interface Taking {
  readonly wanted: readonly (Type | undefined)[];
  /** Names of parameters, where they are known. */
  readonly parameters?: readonly ParameterText[];
  /** What is known of a function of the language, by the type of its first argument. */
  readonly known?: (first: Type | undefined) => KnownCall | undefined;
}

/** What a lambda is given, and what is `this` in it. */
export interface LambdaGiven {
  readonly parameters: readonly (Type | undefined)[];
  readonly receiver: Type | undefined;
}

export const nothingKnown: Taking = { wanted: [] };

/** The type of what never gives a value, as `return`. */
export const nothing = builtIn("Nothing");
export const unit = builtIn("Unit");

/** Says that nothing is done with a value but this. */
export function onlyDone({ read = [], computed = [], held }: Value, kind: SourceUseKind): void {
  for (const each of read) each.kind = kind;
  if (kind === "shows" || kind === "orders") for (const each of computed) each.kind = "computes";
  if (held) held.kind = kind;
}
