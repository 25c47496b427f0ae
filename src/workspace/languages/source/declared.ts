import type { Token } from "./token.js";
import type { TypeText } from "./typeText.js";

/** A file of source. */
export interface SourceFile {
  readonly document: string;
  readonly tokens: readonly Token[];
  readonly package: string;
  /** Full names by the short ones in the file, with the token of the last part. */
  readonly imports: ReadonlyMap<string, { readonly whole: string; readonly token: Token }>;
  /** Packages and classes of which everything is imported. */
  readonly stars: readonly string[];
  readonly isSdk: boolean;
  readonly declared: Declarations;
}

/** The declarations of a file or a class. */
export interface Declarations {
  readonly classes: ClassText[];
  readonly functions: FunctionText[];
  readonly properties: PropertyText[];
  readonly aliases: AliasText[];
  /** Code that runs when an object is created. */
  readonly initial: Range[];
}

/** Positions of tokens: the first, and the one after the last. */
export type Range = readonly [from: number, to: number];

export interface ClassText extends Declarations {
  readonly name: string;
  readonly kind: "class" | "interface" | "object" | "enum";
  readonly isData: boolean;
  readonly typeParameters: readonly string[];
  readonly parameters: readonly ParameterText[];
  readonly supers: readonly TypeText[];
  /** The arguments of the superclass's constructor. */
  readonly superArguments: Range[];
  readonly entries: {
    readonly token: Token;
    readonly arguments?: Range;
    /** The values of a case, in languages whose cases have values. */
    readonly parameters?: readonly ParameterText[];
  }[];
  readonly companions: ClassText[];
  /** Written initialisers, in languages where a class may have several. */
  readonly makers?: FunctionText[];
}

export interface ParameterText {
  /** The name in calls. */
  readonly name: string;
  /** The name in the body, if it is another one. */
  readonly inner?: string;
  readonly type: TypeText | undefined;
  readonly hasDefault: boolean;
  readonly initial?: Range;
  /** For a constructor: whether it is a property too. */
  readonly isProperty: boolean;
}

export interface FunctionText {
  readonly name: string;
  readonly typeParameters: readonly string[];
  /** What is known about the type parameters, by their names. */
  readonly bounds?: ReadonlyMap<string, TypeText>;
  readonly receiver: TypeText | undefined;
  readonly parameters: readonly ParameterText[];
  readonly result: TypeText | undefined;
  /** The type of its errors, in languages that declare it. */
  readonly failure?: TypeText;
  /** Whether it is in an extension, where names have the same meaning as inside the type. */
  readonly isInside?: boolean;
  readonly body?: { readonly range: Range; readonly isExpression: boolean };
}

export interface PropertyText {
  readonly name: string;
  readonly receiver: TypeText | undefined;
  readonly type: TypeText | undefined;
  readonly initial?: Range;
  /** Whether an object after `by` supplies it. */
  readonly isDelegated: boolean;
  readonly getter?: { readonly range: Range; readonly isExpression: boolean };
  /** Code that runs when it is set. */
  readonly observers?: readonly Range[];
  /** Whether it is in an extension, where names have the same meaning as inside the type. */
  readonly isInside?: boolean;
}

export interface AliasText {
  readonly name: string;
  /** The names of its type parameters. */
  readonly parameters: readonly string[];
  readonly type: TypeText;
}
