import type { Token } from "./token.js";
import type { TypeText } from "./typeText.js";

/** A file of source. */
export interface SourceFile {
  readonly document: string;
  readonly tokens: readonly Token[];
  readonly package: string;
  /** Whole names by the short ones that the file gives them, and where the last part stands. */
  readonly imports: ReadonlyMap<string, { readonly whole: string; readonly token: Token }>;
  /** Packages and classes of which everything is imported. */
  readonly stars: readonly string[];
  readonly isSdk: boolean;
  readonly declared: Declarations;
}

/** What a file or a class declares. */
export interface Declarations {
  readonly classes: ClassText[];
  readonly functions: FunctionText[];
  readonly properties: PropertyText[];
  readonly aliases: AliasText[];
  /** Code that runs when an object is made. */
  readonly initial: Range[];
}

/** Places of tokens: the first, and the one behind the last. */
export type Range = readonly [from: number, to: number];

export interface ClassText extends Declarations {
  readonly name: string;
  readonly kind: "class" | "interface" | "object" | "enum";
  readonly isData: boolean;
  readonly typeParameters: readonly string[];
  readonly parameters: readonly ParameterText[];
  readonly supers: readonly TypeText[];
  /** What is passed to the constructor of the class above. */
  readonly superArguments: Range[];
  readonly entries: {
    readonly token: Token;
    readonly arguments?: Range;
    /** What a case holds, in languages whose cases hold values. */
    readonly parameters?: readonly ParameterText[];
  }[];
  readonly companions: ClassText[];
  /** Initialisers that are written out, in languages where a class may have several. */
  readonly makers?: FunctionText[];
}

export interface ParameterText {
  /** What calls say. */
  readonly name: string;
  /** What the body says, where that is another name. */
  readonly inner?: string;
  readonly type: TypeText | undefined;
  readonly hasDefault: boolean;
  readonly initial?: Range;
  /** Of a constructor: it is a property too. */
  readonly isProperty: boolean;
}

export interface FunctionText {
  readonly name: string;
  readonly typeParameters: readonly string[];
  readonly receiver: TypeText | undefined;
  readonly parameters: readonly ParameterText[];
  readonly result: TypeText | undefined;
  /** What it throws, in languages that say so. */
  readonly failure?: TypeText;
  /** It stands in an extension, where names mean what they mean inside the type. */
  readonly isInside?: boolean;
  readonly body?: { readonly range: Range; readonly isExpression: boolean };
}

export interface PropertyText {
  readonly name: string;
  readonly receiver: TypeText | undefined;
  readonly type: TypeText | undefined;
  readonly initial?: Range;
  /** What stands behind `by`. */
  readonly isDelegated: boolean;
  readonly getter?: { readonly range: Range; readonly isExpression: boolean };
  /** Code that runs when it is set. */
  readonly observers?: readonly Range[];
  /** It stands in an extension, where names mean what they mean inside the type. */
  readonly isInside?: boolean;
}

export interface AliasText {
  readonly name: string;
  readonly type: TypeText;
}
