import { memberOf, printCoordinate, type Coordinate } from "../../../../core/use/coordinate.js";
import type { ParameterText } from "../../source/declared.js";
import { CallScan } from "../../source/callScan.js";
import type { KnownClass, KnownFunction, Type } from "../../source/knownProgram.js";
import { builtIn } from "../../source/library.js";
import type { Reader } from "../../source/reader.js";
import { Scope } from "../../source/scope.js";
import type { Token } from "../../source/token.js";
import type { TypeText } from "../../source/typeText.js";
import { nothingKnown, type CallSite, type Given, type Taking, type Value } from "../../source/values.js";
import { skipToComma } from "./declarations.js";
import { itemOf, swiftLibrary } from "./standardLibrary.js";

/**
 * Scans calls in Swift: arguments have labels, closures may come after the parentheses, and types have several
 * initialisers.
 */
export abstract class CallScanInSwift extends CallScan {
  protected readonly library = swiftLibrary;

  /** The types of errors in each `do` around, innermost last. */
  protected readonly thrown: (Type | undefined)[][] = [];
  /** Whether the code is before the brace of a block, where no closure is possible. */
  protected isHead = false;

  /** A key path: `\.note`. */
  protected abstract keyPath(reader: Reader, scope: Scope, root: Type | undefined): Value;

  protected abstract implicitMember(reader: Reader, scope: Scope, wanted: Type | undefined): Value;

  /** Reads something with or without these rules. */
  protected withHead<T>(isHead: boolean, read: () => T): T {
    const before = this.isHead;
    this.isHead = isHead;
    const found = read();
    this.isHead = before;
    return found;
  }

  protected isClosure(reader: Reader): boolean {
    return reader.is("{") && !this.isHead && !reader.token.startsLine;
  }

  protected override calledAs(found: KnownFunction, receiver: Type | undefined, site: CallSite): Value {
    const value = super.calledAs(found, receiver, site);
    if (found.text.failure) this.thrown.at(-1)?.push(this.program.typeOf(found.text.failure, found.home));
    return value;
  }

  /** Labels come in the order of the parameters. */
  protected override fitsLabels(
    labels: readonly (string | undefined)[],
    parameters: readonly ParameterText[],
  ): boolean {
    let at = -1;
    return labels.every((label = "") => {
      at = parameters.findIndex(({ name }, place) => place > at && name === label);
      return at >= 0;
    });
  }

  protected override inExtensionOf(type: Type) {
    const own = [["Self", type]] as const;
    return this.library.isContainer(type) ? [...own, ["Element", itemOf(type)] as const] : own;
  }

  /** The initialiser of a type that accepts the arguments. */
  protected override constructed(known: KnownClass, site: CallSite): Value {
    const { makers = [] } = known.text;
    if (makers.length === 0 || known.isSdk) return super.constructed(known, site);
    const labels = this.labelsOf(site.reader.from(site.reader.at));
    const fitting = makers.find(({ parameters }) =>
      labels.every((label) => parameters.some(({ name }) => name === label)),
    );
    const parameters = (fitting ?? makers[0])?.parameters ?? [];
    return super.constructed({ ...known, text: { ...known.text, parameters } }, site);
  }

  /** The labels of the arguments that follow; "" for one without. */
  private labelsOf(reader: Reader): string[] {
    if (!reader.is("(")) return [];
    const inner = reader.from(...reader.skipBrackets());
    const labels: string[] = [];
    while (!inner.isAtEnd) {
      labels.push(inner.token.kind === "name" && inner.peek(1).text === ":" ? inner.token.text : "");
      skipToComma(inner);
      inner.takes(",");
    }
    return labels;
  }

  protected override callArguments(reader: Reader, scope: Scope, taking: Taking): Given[] {
    const given =
      reader.is("(") && !reader.token.startsLine
        ? this.withHead(false, () => this.arguments(reader.from(...reader.skipBrackets()), scope, taking))
        : [];
    let label: string | undefined;
    while (this.isClosure(reader)) {
      const { token } = reader;
      const at = closureAt(taking, given, label);
      const name = label ?? taking.parameters?.[at]?.name;
      const { type, read = [], held } = this.lambda(reader, scope, this.closureGiven(taking, at, given));
      given.push({ name: name === "" ? undefined : name, token, type, read, computed: [], held, isLambda: true });
      // `Button { … } label: { … }`
      const isNext = reader.token.kind === "name" && reader.peek(1).text === ":" && reader.peek(2).text === "{";
      label = isNext && !this.isHead ? reader.next().text : undefined;
      if (label !== undefined) reader.next();
    }
    return given;
  }

  protected override arguments(reader: Reader, scope: Scope, taking: Taking): Given[] {
    const { wanted, parameters = [] } = taking;
    const given: Given[] = [];
    while (!reader.isAtEnd) {
      const before = reader.at;
      const isNamed = reader.token.kind === "name" && reader.peek(1).text === ":" && reader.peek(1).kind === "symbol";
      const { token } = reader;
      const name = isNamed ? reader.next().text : undefined;
      if (isNamed) reader.next();
      const at =
        name === undefined ? placeOf(given.length, parameters) : parameters.findIndex((each) => each.name === name);
      const isLambda = reader.is("{") || reader.is("\\");
      const start = reader.at;
      let value: Value;
      if (reader.is("{")) value = this.lambda(reader, scope, this.closureGiven(taking, at, given));
      else if (reader.is("\\")) {
        const { parameters: roots } = this.closureGiven(taking, at, given);
        const [first] = given;
        // `KeyPath<Berth, String>`
        const path = wanted[at]?.name.endsWith("KeyPath") === true ? wanted[at].arguments[0] : undefined;
        value = this.keyPath(reader, scope, path ?? roots[0] ?? itemOf(first?.type));
      } else value = this.expression(reader, scope, wanted[at]);
      const isUntyped = saysNoType(reader.tokens.slice(start, reader.at));
      // `of: Berth.self` says the type itself.
      const { named, type = named && builtIn(named.name), read = [], computed = [], held } = value;
      given.push({ name, token, type, read, computed, held, isLambda, isUntyped });
      if (!reader.takes(",") && reader.at === before) reader.next();
    }
    return given;
  }

  /** The parameter types of the closure at a position of the arguments. */
  private closureGiven({ wanted, known }: Taking, at: number, given: readonly Given[]) {
    const [first] = given;
    const declared = wanted[at]?.function;
    // A function with a list and a closure usually passes the items to the closure, as `ForEach(berths) { … }` does.
    const items = this.library.isContainer(first?.type) ? [itemOf(first?.type)] : [];
    return { parameters: declared?.parameters ?? known?.(given)?.given ?? items, receiver: undefined };
  }

  /**
   * A case of an enum: `.sail(vessel)`, `Vessel.sail(vessel)`.
   *
   * @param wanted the expected enum
   */
  protected madeCase(
    owner: KnownClass,
    token: Token,
    { reader, scope, wanted: of }: Pick<CallSite, "reader" | "scope" | "wanted">,
  ): Value {
    const parameters = this.entryOf(owner, token.text)?.parameters ?? [];
    this.tellsCase(owner, token, "writes");
    const wanted = parameters.map((each) => this.typeIn(each.type, owner, of));
    if (reader.is("(") && !reader.token.startsLine) this.callArguments(reader, scope, { wanted, parameters });
    return { type: of ?? builtIn(owner.name) };
  }

  /** A type inside another one, with that one's type arguments. */
  protected typeIn(text: TypeText | undefined, owner: KnownClass, of: Type | undefined): Type | undefined {
    const given = owner.text.typeParameters.map((name, at) => [name, of?.arguments[at]] as const);
    const around = [...owner.home.around, owner];
    return this.program.typeOf(text, { file: owner.home.file, around, parameters: new Map(given) });
  }

  protected entryOf(owner: KnownClass, name: string): KnownClass["text"]["entries"][number] | undefined {
    return owner.text.entries.find(({ token }) => token.text === name);
  }

  /** Records a case of one of the SDK's enums in source: the enum depends on the value of the case. */
  protected tellsCase(owner: KnownClass, token: Token, kind: "writes" | "tells"): void {
    const coordinate = this.sdk.coordinateOf(owner);
    if (coordinate === undefined) return;
    const done = kind === "tells" ? "matches" : kind;
    this.tell?.(coordinate, done, token);
    this.tell?.(memberOf(coordinate, this.sdk.member(coordinate, token.text)), kind, token);
    for (const { type } of this.entryOf(owner, token.text)?.parameters ?? []) {
      const member = this.program.classOf(this.program.typeOf(type, owner.home));
      const name = member && this.sdk.coordinateOf(member);
      if (name === undefined) continue;
      // A case with the name of its value's type is renamed when the type is.
      const isNamedSo = name.slice(name.lastIndexOf(".") + 1).toLowerCase() === token.text.toLowerCase();
      this.tell?.(name, isNamedSo ? kind : done, token);
    }
  }

  /** A case or a constant of an unknown value: it may be of any type of the SDK that has one. */
  protected reachesAnyCase(token: Token): void {
    // Every open union has these, whatever its contract.
    if (token.text === "other" || token.text === "newer") return;
    for (const known of this.program.classes.values()) {
      const coordinate = this.sdk.coordinateOf(known);
      if (coordinate === undefined) continue;
      if (this.entryOf(known, token.text) ?? this.sdk.constant(coordinate, token.text))
        this.tell?.(printCoordinate(coordinate, "anyMember"), "reaches", token);
    }
  }

  /** An `.init(…)` of an unknown type: it may build any record with such arguments. */
  protected reachesAnyMade(token: Token, reader: Reader): void {
    const labels = this.labelsOf(reader.from(reader.at));
    if (labels.length === 0 || labels.includes("")) return;
    for (const known of this.program.classes.values()) {
      const coordinate = this.sdk.coordinateOf(known);
      const { isData, parameters } = known.text;
      if (coordinate !== undefined && isData && labels.every((label) => parameters.some(({ name }) => name === label)))
        this.tell?.(printCoordinate(coordinate, "anyMember"), "reaches", token);
    }
  }

  /** `.init(…)` does not name a type. */
  protected override namesBuilt(coordinate: Coordinate, token: Token): void {
    if (token.text !== "init") super.namesBuilt(coordinate, token);
  }

  protected override constantOf(owner: KnownClass, token: Token): Value | undefined {
    const coordinate = this.sdk.coordinateOf(owner);
    const value = coordinate === undefined ? undefined : this.sdk.constant(coordinate, token.text);
    return coordinate === undefined || value === undefined
      ? undefined
      : { type: builtIn(owner.name), constant: { coordinate: memberOf(coordinate, value), token } };
  }

  /** A call after a dot, on a value or on a type. */
  protected override callOn(of: Value, site: CallSite): Value {
    const { token, scope, reader } = site;
    if (of.named) {
      if (token.text === "init") return this.constructed(of.named, site);
      if (this.entryOf(of.named, token.text)) return this.madeCase(of.named, token, site);
      const nested = this.nestedIn(of.named, token.text);
      if (nested) return this.constructed(nested, site);
      const found = this.functionOn(builtIn(of.named.name), token.text, scope);
      if (found) return this.called(found, builtIn(of.named.name), site);
      this.callArguments(reader, scope, nothingKnown);
      return {};
    }
    return super.callOn(of, site);
  }

  protected nestedIn(known: KnownClass, name: string): KnownClass | undefined {
    const whole = this.program.classNamed([...known.name.split("."), name], { ...known.home, around: [] });
    return whole === undefined ? undefined : this.program.classes.get(whole);
  }
}

/** The position of an argument without a label: it skips the parameters that have one. */
function placeOf(count: number, parameters: readonly ParameterText[]): number {
  const unlabelled = parameters.flatMap(({ name }, at) => (name === "" ? [at] : []));
  return parameters.length === 0 ? count : (unlabelled[count] ?? unlabelled.at(-1) ?? count);
}

/** The position of a closure after the parentheses: the first function parameter without an argument. */
function closureAt({ wanted, parameters = [] }: Taking, given: readonly Given[], label: string | undefined): number {
  if (label !== undefined) return parameters.findIndex(({ name }) => name === label);
  const free = wanted.findIndex(
    (each, at) =>
      each?.function !== undefined && !given.some(({ name }) => name !== undefined && name === parameters[at]?.name),
  );
  return free >= 0 ? free : wanted.length - 1;
}

/** `.free`, `[.free, .reserved]`: members of whatever type is expected. An integer literal has any number type. */
function saysNoType(tokens: readonly Token[]): boolean {
  const [first, second] = tokens;
  if (tokens.length === 1 && first?.kind === "number") return !/[.eE]/.test(first.text);
  const isImplicit = first?.text === "." || (first?.text === "[" && second?.text === ".");
  return isImplicit && !tokens.some(({ kind, text }) => kind === "name" && /^\p{Lu}/u.test(text));
}
