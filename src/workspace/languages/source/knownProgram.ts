import type {
  AliasText,
  ClassText,
  Declarations,
  FunctionText,
  ParameterText,
  PropertyText,
  SourceFile,
} from "./declared.js";
import type { FunctionParts, TypeText } from "./typeText.js";

/** A type: of a class of the app or an SDK, by its full name, or of the language, by its short name. */
export interface Type {
  readonly name: string;
  readonly arguments: readonly (Type | undefined)[];
  readonly isNullable: boolean;
  readonly function?: FunctionParts<Type>;
  /** For a tuple: the labels of its parts. */
  readonly labels?: readonly (string | undefined)[];
}

/** The place of a declaration, which decides what names mean. */
export interface Home {
  readonly file: SourceFile;
  /** The classes around it, outermost first. */
  readonly around: readonly KnownClass[];
  /** The types of type parameters; undefined if they are unknown. */
  readonly parameters: ReadonlyMap<string, Type | undefined>;
}

export interface KnownClass {
  /** With its package and the classes around it. */
  readonly name: string;
  readonly text: ClassText;
  readonly home: Home;
  readonly isSdk: boolean;
}

export interface KnownFunction {
  readonly text: FunctionText;
  readonly home: Home;
}

export interface KnownProperty {
  readonly text: PropertyText | ParameterText;
  readonly home: Home;
}

/** All declarations of an app and its SDK. */
export class KnownProgram {
  readonly classes = new Map<string, KnownClass>();
  /** Top-level functions, by name. */
  readonly functions = new Map<string, KnownFunction[]>();
  readonly properties = new Map<string, KnownProperty[]>();
  private readonly aliases = new Map<string, AliasText & { readonly home: Home }>();
  private readonly packages = new Set<string>();

  constructor(readonly files: readonly SourceFile[]) {
    for (const file of files) {
      this.packages.add(file.package);
      this.add(file.declared, { file, around: [], parameters: new Map() }, file.package);
    }
    for (const known of [...this.functions.values(), ...this.properties.values()])
      known.forEach((each, at) => {
        const { text, home } = each;
        if ("isInside" in text && text.isInside)
          (known as { text: typeof text; home: Home }[])[at] = { text, home: this.insideOf(text.receiver, home) };
      });
  }

  private add(declared: Declarations, home: Home, prefix: string): void {
    const whole = (name: string): string => (prefix === "" ? name : `${prefix}.${name}`);
    for (const text of declared.classes) this.addClass(text, home, whole(text.name));
    for (const alias of declared.aliases) this.aliases.set(whole(alias.name), { ...alias, home });
    if (home.around.length > 0) return;
    for (const text of declared.functions) push(this.functions, text.name, { text, home });
    for (const text of declared.properties) push(this.properties, text.name, { text, home });
  }

  private addClass(text: ClassText, home: Home, name: string): void {
    const known: KnownClass = { name, text, home, isSdk: home.file.isSdk };
    this.classes.set(name, known);
    const parameters = new Map([...home.parameters, ...text.typeParameters.map((each) => [each, undefined] as const)]);
    const inside: Home = { file: home.file, around: [...home.around, known], parameters };
    this.add(text, inside, name);
    for (const companion of text.companions) this.addClass(companion, inside, `${name}.Companion`);
  }

  /** Returns the class or alias that a name means somewhere; undefined if it is not a known one. */
  classNamed(parts: readonly string[], home: Home): string | undefined {
    const [first = "", ...rest] = parts;
    for (const start of this.candidates(first, home)) {
      const whole = [start, ...rest].join(".");
      if (this.classes.has(whole) || this.aliases.has(whole)) return whole;
    }
    return undefined;
  }

  /** Returns the place of a declaration in an extension of a type: directly inside the type. */
  insideOf(type: TypeText | undefined, home: Home): Home {
    const parts = type?.path.map(({ text }) => text) ?? [];
    const known = this.classes.get(this.classNamed(parts, home) ?? "");
    return known ? { ...home, around: [...known.home.around, known] } : home;
  }

  private candidates(name: string, { file, around }: Home): string[] {
    const nested = [...around]
      .reverse()
      .flatMap((each) =>
        this.withSupers(each).flatMap((one) => this.prefixes(one).map((prefix) => `${prefix}.${name}`)),
      );
    const imported = file.imports.get(name)?.whole;
    return [
      ...nested,
      ...(imported === undefined ? [] : [imported]),
      file.package === "" ? name : `${file.package}.${name}`,
      ...file.stars.map((star) => `${star}.${name}`),
      name,
    ];
  }

  /** A class, and the types around it if it is declared in an extension. */
  private prefixes({ name, home: { file } }: KnownClass): string[] {
    if (file.package !== "") return [name];
    const parts = name.split(".");
    return parts.map((_, at) => parts.slice(0, parts.length - at).join("."));
  }

  /** A class and its superclasses. */
  withSupers(known: KnownClass, passed = new Set<KnownClass>()): KnownClass[] {
    if (passed.has(known)) return [];
    passed.add(known);
    const above = known.text.supers.flatMap(({ path }) => {
      const name = this.classNamed(
        path.map(({ text }) => text),
        { ...known.home, around: known.home.around.filter((each) => each !== known) },
      );
      const found = name === undefined ? undefined : this.classes.get(name);
      return found ? this.withSupers(found, passed) : [];
    });
    return [known, ...above];
  }

  /** Returns the type that a type in source means there. */
  typeOf(text: TypeText | undefined, home: Home, depth = 0): Type | undefined {
    if (!text || depth > deepest) return undefined;
    const inside = (each: TypeText | undefined): Type | undefined => this.typeOf(each, home, depth + 1);
    if (text.function) {
      const { receiver, parameters, result } = text.function;
      return {
        name: "Function",
        arguments: [],
        isNullable: text.isNullable,
        function: { receiver: inside(receiver), parameters: parameters.map(inside), result: inside(result) },
      };
    }
    const parts = text.path.map(({ text: part }) => part);
    const [first = ""] = parts;
    if (parts.length === 1 && home.parameters.has(first)) {
      const given = home.parameters.get(first);
      return given && text.isNullable ? { ...given, isNullable: true } : given;
    }
    const name = this.classNamed(parts, home);
    const alias = name === undefined ? undefined : this.aliases.get(name);
    if (alias) {
      const given = alias.parameters.map((each, at) => [each, inside(text.arguments[at])] as const);
      const within = { ...alias.home, parameters: new Map([...alias.home.parameters, ...given]) };
      const meant = this.typeOf(alias.type, within, depth + 1);
      return meant && text.isNullable ? { ...meant, isNullable: true } : meant;
    }
    return {
      name: name ?? parts.at(-1) ?? "",
      arguments: text.arguments.map(inside),
      isNullable: text.isNullable,
      ...(text.labels ? { labels: text.labels } : {}),
    };
  }

  classOf(type: Type | undefined): KnownClass | undefined {
    return type && this.classes.get(type.name);
  }

  /** Whether a top-level declaration of one file is known by its name in another. */
  isSeen(declaredIn: SourceFile, name: string, from: SourceFile): boolean {
    const whole = declaredIn.package === "" ? name : `${declaredIn.package}.${name}`;
    return (
      declaredIn.package === from.package ||
      from.stars.includes(declaredIn.package) ||
      [...from.imports.values()].some((each) => each.whole === whole)
    );
  }

  isPackage(name: string): boolean {
    return this.packages.has(name);
  }
}

/** Aliases may refer to each other. No type is this deep. */
const deepest = 20;

function push<T>(map: Map<string, T[]>, key: string, value: T): void {
  const known = map.get(key);
  if (known) known.push(value);
  else map.set(key, [value]);
}
