import type { Coordinate } from "../../../core/use/coordinate.js";
import type { Told } from "./told.js";
import type { SourceUseKind } from "../../../core/use/sourceUse.js";
import type { ParameterText } from "./declared.js";
import type { KnownClass, Type } from "./knownProgram.js";
import type { Reader } from "./reader.js";
import type { Scope } from "./scope.js";
import { builtIn, type GivenType, type KnownCall } from "./library.js";
import type { Token } from "./token.js";

/** The known facts about the value of an expression. */
export interface Value {
  readonly type?: Type | undefined;
  /** The expression names a class, not a value. */
  readonly named?: KnownClass;
  /** The call of the SDK that returned it. */
  readonly called?: Token;
  /** The SDK members whose value it is. */
  readonly read?: readonly Told[] | undefined;
  /** The SDK members that it was calculated from, all of them numbers. */
  readonly computed?: readonly Told[] | undefined;
  /** The place of a variable with such a value, so that a use of the variable is a use of the value. */
  readonly held?: Told | undefined;
  /** For a pair: the SDK members whose values its two parts are. */
  readonly parts?: readonly (readonly Told[])[];
  /** Whether it is an integer literal. */
  readonly isWritten?: boolean;
  /** A path of names whose type can be narrowed. */
  readonly path?: string;
  /** An enum's constant whose use is not known yet. */
  readonly constant?: { readonly coordinate: Coordinate; readonly token: Token };
  /** The facts that follow if it is true, and if it is false. */
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
  /** The SDK members whose value it is, or, for a lambda, the members in its result. */
  readonly read: readonly Told[];
  /** The SDK members that it was calculated from. */
  readonly computed: readonly Told[];
  readonly held: Told | undefined;
  readonly isLambda: boolean;
  /** Whether it has no written type, in languages where that is possible. */
  readonly isUntyped?: boolean;
}

/** A call in source: its name, and the tokens after it. */
export interface CallSite {
  readonly token: Token;
  readonly typeArguments: readonly (Type | undefined)[];
  readonly reader: Reader;
  readonly scope: Scope;
  /** The expected type of its value. */
  readonly wanted?: Type | undefined;
}

/** The parameters of a function. */
export interface Taking {
  readonly wanted: readonly (Type | undefined)[];
  /** The names of parameters, if they are known. */
  readonly parameters?: readonly ParameterText[];
  /** Returns the known facts about a function of the language, by the arguments that are known so far. */
  readonly known?: (given: readonly GivenType[]) => KnownCall | undefined;
}

/** The parameter types of a lambda, and the type of `this` in it. */
export interface LambdaGiven {
  readonly parameters: readonly (Type | undefined)[];
  readonly receiver: Type | undefined;
}

export const nothingKnown: Taking = { wanted: [] };

/** The type of expressions without a value, such as `return`. */
export const nothing = builtIn("Nothing");
export const unit = builtIn("Unit");

/** Records that a value is only used in this way. */
export function onlyDone({ read = [], computed = [], held }: Value, kind: SourceUseKind): void {
  for (const each of read) each.kind = kind;
  if (kind === "shows" || kind === "orders") for (const each of computed) each.kind = "computes";
  if (held) held.kind = kind;
}
