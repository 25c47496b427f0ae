import { connectionCoordinate, memberOf, printCoordinate } from "../../../core/use/coordinate.js";
import type { SourceUseKind } from "../../../core/use/sourceUse.js";
import type { ClassText, FunctionText, ParameterText, PropertyText } from "./declared.js";
import type { Home, KnownClass, KnownFunction, KnownProgram, Type } from "./knownProgram.js";
import { Reader } from "./reader.js";
import { Scope, type Holder } from "./scope.js";
import type { SdkModel } from "./sdkModel.js";
import { builtIn, type Library } from "./library.js";
import type { Token } from "./token.js";
import type { TypeText } from "./typeText.js";
import { unit, type Value } from "./values.js";
import type { Tell } from "./told.js";

/** The largest nesting of searches for results. */
const deepest = 12;

/** The shared facts of scans of all files of an app: results of functions and properties without a declared type. */
export interface SharedScan {
  readonly inferred: Map<object, Type | undefined>;
  depth: number;
  /** The number of calls around for which a function of several is being chosen. */
  choosing: number;
  /** Variables with values of SDK members, in the files that were scanned. */
  readonly holders: Holder[];
}

/** Finds what names mean, and the uses of the SDK that follow. */
export abstract class Resolver {
  constructor(
    protected readonly program: KnownProgram,
    protected readonly sdk: SdkModel,
    /** Absent while a type is looked for whose source is scanned separately. */
    protected readonly tell: Tell | undefined,
    protected readonly shared: SharedScan = { inferred: new Map(), depth: 0, choosing: 0, holders: [] },
  ) {}

  protected abstract readonly library: Library;

  /** The same scan, without reporting uses. */
  protected abstract silent(): this;

  protected abstract expression(reader: Reader, scope: Scope, wanted?: Type): Value;

  protected abstract function(text: FunctionText, outer: Scope, tokens: readonly Token[]): Type | undefined;

  protected knownOf(text: ClassText, { file, around }: Home): KnownClass | undefined {
    const prefix = around.at(-1)?.name ?? file.package;
    for (const name of [text.name, `Companion.${text.name}`]) {
      const found = this.program.classes.get(prefix === "" ? name : `${prefix}.${name}`);
      if (found?.text === text) return found;
    }
    return undefined;
  }

  /** A type named in source. */
  protected typeText(text: TypeText | undefined, home: Home, kind: SourceUseKind = "names"): void {
    if (!text) return;
    for (const each of text.arguments) this.typeText(each, home);
    if (text.function)
      for (const each of [text.function.receiver, ...text.function.parameters, text.function.result])
        this.typeText(each, home);
    const parts = text.path.map(({ text: part }) => part);
    for (let count = 1; count <= parts.length; count++) {
      const known = this.classNamed(parts.slice(0, count), home);
      const token = text.path[count - 1];
      if (known && token) this.names(known, token, kind);
    }
    const whole = this.program.classNamed(parts, home);
    const [last] = text.path.slice(-1);
    // The SDK's own name for a list or a map.
    if (whole !== undefined && last && !this.program.classes.has(whole) && whole.startsWith(`${this.sdk.namespace}.`))
      this.tell?.(printCoordinate(whole.slice(this.sdk.namespace.length + 1)), kind, last);
  }

  protected classNamed(parts: readonly string[], home: Home): KnownClass | undefined {
    const name = this.program.classNamed(parts, home);
    return name === undefined ? undefined : this.program.classes.get(name);
  }

  protected names(known: KnownClass, token: Token, kind: SourceUseKind): void {
    const coordinate = this.sdk.coordinateOf(known);
    if (coordinate === undefined) return;
    if (coordinate === this.sdk.connect) this.tell?.(connectionCoordinate, "calls", token);
    else this.tell?.(coordinate, kind, token);
    const chosen = this.sdk.chosenField(known);
    if (chosen !== undefined) this.tell?.(printCoordinate(chosen), kind, token);
    // A member of a union also counts for the union.
    for (const above of this.program.withSupers(known).slice(1)) {
      const union = this.sdk.coordinateOf(above);
      if (union !== undefined && (kind === "matches" || kind === "tells")) this.tell?.(union, "matches", token);
    }
  }

  /** The superclass of the class around. */
  protected superOf({ home }: Scope): Type | undefined {
    const around = home.around.at(-1);
    const [, above] = around ? this.program.withSupers(around) : [];
    return above && builtIn(above.name);
  }

  /** `is Outcome.Success` of an `Outcome<Berth, …>` also contains a berth. */
  protected withArguments(type: Type, of: Type | undefined): Type {
    if (type.arguments.length > 0 || !of) return type;
    const [narrow, wide] = [this.program.classOf(type), this.program.classOf(of)];
    if (!narrow || !wide)
      return this.library.isContainer(of) && type.name !== of.name ? { ...type, arguments: of.arguments } : type;
    const known = new Map(wide.text.typeParameters.map((name, at) => [name, of.arguments[at]]));
    return { ...type, arguments: narrow.text.typeParameters.map((name) => known.get(name)) };
  }

  /** A match without a default must list every new value. */
  protected matchesAll(type: Type | undefined, token: Token): void {
    const known = this.program.classOf(type);
    const coordinate = known && this.sdk.coordinateOf(known);
    if (coordinate !== undefined) this.tell?.(printCoordinate(coordinate, "wholeMatch"), "matches", token);
  }

  /** A constant that is imported by its own name, or declared in the class that is read. */
  protected constantAlone(token: Token, { home }: Scope): Value | undefined {
    const whole = home.file.imports.get(token.text)?.whole;
    const candidates = [
      ...(whole === undefined ? [] : [whole]),
      ...home.file.stars.map((star) => `${star}.${token.text}`),
    ];
    for (const candidate of candidates) {
      const parts = candidate.split(".");
      const owner = this.program.classes.get(
        parts
          .slice(0, -1)
          .join(".")
          .replace(/\.Companion$/, ""),
      );
      const found = owner && this.constantOf(owner, { ...token, text: parts.at(-1) ?? "" });
      if (found?.constant) return { ...found, constant: { ...found.constant, token } };
    }
    return undefined;
  }

  protected constantOf(owner: KnownClass, token: Token): Value | undefined {
    const coordinate = this.sdk.coordinateOf(owner);
    const value = coordinate === undefined ? undefined : this.sdk.constant(coordinate, token.text);
    if (coordinate !== undefined && value !== undefined)
      return { type: builtIn(owner.name), constant: { coordinate: memberOf(coordinate, value), token } };
    const isEntry = owner.text.entries.some((each) => each.token.text === token.text);
    return isEntry ? { type: builtIn(owner.name) } : undefined;
  }

  protected companionOf(known: KnownClass): KnownClass {
    const [companion] = known.text.companions;
    return (companion && this.program.classes.get(`${known.name}.Companion.${companion.name}`)) ?? known;
  }

  protected propertyOf(
    known: KnownClass,
    name: string,
  ): { readonly text: PropertyText | ParameterText; readonly owner: KnownClass } | undefined {
    for (const owner of this.program.withSupers(known)) {
      const text =
        owner.text.parameters.find((each) => each.isProperty && each.name === name) ??
        owner.text.properties.find((each) => each.name === name);
      if (text) return { text, owner };
    }
    return undefined;
  }

  /** The types that names stand for in the declarations of a type and its extensions. */
  protected inExtensionOf(_type: Type): readonly (readonly [string, Type | undefined])[] {
    return [];
  }

  protected memberType(text: PropertyText | ParameterText, owner: KnownClass, of: Type): Type | undefined {
    const given = this.program.classOf(of) === owner ? of.arguments : [];
    const parameters = new Map(owner.text.typeParameters.map((name, at) => [name, given[at]] as const));
    return this.typeOfProperty(text, {
      file: owner.home.file,
      around: [...owner.home.around, owner],
      parameters: new Map([...owner.home.parameters, ...this.inExtensionOf(of), ...parameters]),
    });
  }

  protected typeOfProperty(text: PropertyText | ParameterText, home: Home): Type | undefined {
    if (text.type) return this.program.typeOf(text.type, home);
    if (!("isDelegated" in text)) return undefined;
    return this.inferredOnce(text, (silent) => {
      const { tokens } = home.file;
      const receivers = home.around.map((each) => builtIn(each.name)).reverse();
      const scope = new Scope(home, receivers);
      if (text.initial) {
        const { type } = silent.expression(new Reader(tokens, ...text.initial), scope);
        return text.isDelegated ? this.library.delegated(type) : type;
      }
      return text.getter?.isExpression === true
        ? silent.expression(new Reader(tokens, ...text.getter.range), scope).type
        : undefined;
    });
  }

  protected inferredOnce(key: object, infer: (silent: this) => Type | undefined): Type | undefined {
    if (this.shared.inferred.has(key)) return this.shared.inferred.get(key);
    if (this.shared.depth > deepest) return undefined;
    this.shared.inferred.set(key, undefined);
    this.shared.depth++;
    const type = infer(this.silent());
    this.shared.depth--;
    this.shared.inferred.set(key, type);
    return type;
  }

  protected resultOf({ text, home }: KnownFunction, receiver: Type | undefined): Type | undefined {
    const known = new Map<string, Type | undefined>();
    this.bind(text.receiver, receiver, text.typeParameters, known);
    const inside: Home = {
      ...home,
      parameters: new Map([...home.parameters, ...text.typeParameters.map((each) => [each, known.get(each)] as const)]),
    };
    if (text.result) return this.program.typeOf(text.result, inside);
    if (text.body?.isExpression !== true) return unit;
    return this.inferredOnce(text, (silent) =>
      silent.function(text, new Scope(home, home.around.map((each) => builtIn(each.name)).reverse()), home.file.tokens),
    );
  }

  /** The types of a function's type parameters, from its receiver. */
  protected bind(
    text: TypeText | undefined,
    type: Type | undefined,
    parameters: readonly string[],
    into: Map<string, Type | undefined>,
  ): void {
    if (!text || !type) return;
    const [only] = text.path;
    if (only && text.path.length === 1 && parameters.includes(only.text)) into.set(only.text, type);
    text.arguments.forEach((each, at) => {
      this.bind(each, type.arguments[at], parameters, into);
    });
  }

  protected reads(known: KnownClass, property: string, token: Token): Pick<Value, "read"> {
    const coordinate = this.sdk.coordinateOf(known);
    if (coordinate === undefined) return {};
    const told = [this.tell?.(memberOf(coordinate, this.sdk.member(coordinate, property)), "reads", token)];
    const text = this.propertyOf(known, property)?.text;
    const type =
      text &&
      this.program.typeOf(text.type, {
        file: known.home.file,
        around: [...known.home.around, known],
        parameters: new Map(),
      });
    for (const each of [type, ...(type?.arguments ?? [])]) {
      const of = this.program.classOf(each);
      const name = of && !of.text.isData ? this.sdk.coordinateOf(of) : undefined;
      if (name !== undefined) told.push(this.tell?.(name, "reads", token));
    }
    return { read: told.filter((each) => each !== undefined) };
  }

  /** A member of an unknown value: it may be any record of the SDK with such a member. */
  protected reachesAny({ text, ...token }: Token): void {
    if (!this.tell) return;
    for (const known of this.program.classes.values()) {
      const coordinate = this.sdk.coordinateOf(known);
      if (coordinate === undefined || !known.text.parameters.some((each) => each.isProperty && each.name === text))
        continue;
      this.tell(printCoordinate(coordinate, "anyMember"), "reaches", { text, ...token });
    }
  }

  protected functionAlone(name: string, scope: Scope): KnownFunction | undefined {
    for (const receiver of scope.receivers) {
      const found = this.functionOn(receiver, name, scope);
      if (found) return found;
    }
    const whole = scope.home.file.imports.get(name)?.whole;
    const own = whole?.slice(whole.lastIndexOf(".") + 1) ?? name;
    return this.program.functions
      .get(own)
      ?.find(({ text, home }) => !text.receiver && this.program.isSeen(home.file, own, scope.home.file));
  }

  /** A method, or an extension function of such a value. */
  protected functionOn(type: Type | undefined, name: string, scope: Scope): KnownFunction | undefined {
    const known = this.program.classOf(type);
    for (const owner of known ? this.program.withSupers(known) : []) {
      const text = owner.text.functions.find((each) => each.name === name);
      const given = owner === known ? (type?.arguments ?? []) : [];
      const parameters = new Map(owner.text.typeParameters.map((each, at) => [each, given[at]] as const));
      if (text) return { text, home: { file: owner.home.file, around: [...owner.home.around, owner], parameters } };
    }
    const whole = scope.home.file.imports.get(name)?.whole;
    const own = whole?.slice(whole.lastIndexOf(".") + 1) ?? name;
    const inClasses = scope.home.around.flatMap((each) =>
      each.text.functions.flatMap((text): KnownFunction[] =>
        text.receiver && text.name === name ? [{ text, home: { ...scope.home } }] : [],
      ),
    );
    const seen = [...inClasses, ...(this.program.functions.get(own) ?? [])].filter(
      ({ text, home }) =>
        text.receiver &&
        (inClasses.some((each) => each.text === text) || this.program.isSeen(home.file, own, scope.home.file)),
    );
    const fitting =
      type &&
      seen.find(({ text, home }) =>
        this.fits(
          type,
          this.program.typeOf(text.receiver, {
            ...home,
            parameters: new Map(text.typeParameters.map((each) => [each, undefined])),
          }),
        ),
      );
    if (fitting) return fitting;
    // A call of the SDK that is imported by its name can be nothing else, whatever is known about the connection.
    return type && (known ?? this.library.isPlain(type)) ? undefined : seen.find((each) => this.sdk.isCall(each));
  }

  protected fits(type: Type | undefined, wanted: Type | undefined): boolean {
    if (!type) return false;
    if (!wanted || wanted.name === "Any") return true;
    if (type.name === wanted.name) return true;
    const known = this.program.classOf(type);
    if (known) return this.program.withSupers(known).some((each) => each.name === wanted.name);
    return (
      this.library.isContainer(type) &&
      this.library.isContainer(wanted) &&
      this.library.generalContainers.has(wanted.name)
    );
  }

  protected passes({ read = [], called }: Value): void {
    for (const each of read) each.kind = "passes";
    if (called) this.tell?.(printCoordinate(called.text), "passes", called);
  }

  /** Whether a value goes where a type of the SDK is expected by name. */
  protected isHandedOn(type: Type | undefined, wanted: Type | undefined): boolean {
    if (!type || !wanted) return false;
    const known = this.program.classOf(wanted);
    if (known && known.isSdk && type.name === wanted.name) return true;
    return wanted.arguments.some((each, at) => this.isHandedOn(type.arguments[at], each));
  }

  protected flush({ constant }: Value, kind: SourceUseKind): void {
    if (constant) this.tell?.(constant.coordinate, kind, constant.token);
  }
}
