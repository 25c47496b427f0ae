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

/** Calls in Swift: arguments have labels, closures may stand behind the parentheses, and types have several initialisers. */
export abstract class CallScanInSwift extends CallScan {
  protected readonly library = swiftLibrary;

  /** What is thrown inside of each `do` around, the innermost last. */
  protected readonly thrown: (Type | undefined)[][] = [];
  /** What stands before a brace that begins a block: no closure can. */
  protected isHead = false;

  /** A path of keys: `\.note`. */
  protected abstract keyPath(reader: Reader, scope: Scope, root: Type | undefined): Value;

  protected abstract implicitMember(reader: Reader, scope: Scope, wanted: Type | undefined): Value;

  /** Reads something with or without the rules of a head. */
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

  protected override called(found: KnownFunction, receiver: Type | undefined, site: CallSite): Value {
    const value = super.called(found, receiver, site);
    if (found.text.failure) this.thrown.at(-1)?.push(this.program.typeOf(found.text.failure, found.home));
    return value;
  }

  /** The initialiser of a type that takes what is given. */
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

  /** Labels of the arguments that stand next; "" for one without. */
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
        value = this.keyPath(reader, scope, roots[0] ?? itemOf(first?.type));
      } else value = this.expression(reader, scope, wanted[at]);
      const isUntyped = saysNoType(reader.tokens.slice(start, reader.at));
      const { type, read = [], computed = [], held } = value;
      given.push({ name, token, type, read, computed, held, isLambda, isUntyped });
      if (!reader.takes(",") && reader.at === before) reader.next();
    }
    return given;
  }

  /** What the closure at a place of the arguments is given. */
  private closureGiven({ wanted, known }: Taking, at: number, [first]: readonly Given[]) {
    const declared = wanted[at]?.function;
    // What is given a list and a closure most often gives the closure its items, as `ForEach(berths) { … }` does.
    const items = this.library.isContainer(first?.type) ? [itemOf(first?.type)] : [];
    return { parameters: declared?.parameters ?? known?.(first?.type)?.given ?? items, receiver: undefined };
  }

  /** A case of an enum that is made: `.sail(vessel)`, `Vessel.sail(vessel)`; `wanted` is the enum as it is wanted. */
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

  /** A type that stands inside of another one, with what that one's type parameters stand for. */
  protected typeIn(text: TypeText | undefined, owner: KnownClass, of: Type | undefined): Type | undefined {
    const given = owner.text.typeParameters.map((name, at) => [name, of?.arguments[at]] as const);
    const around = [...owner.home.around, owner];
    return this.program.typeOf(text, { file: owner.home.file, around, parameters: new Map(given) });
  }

  protected entryOf(owner: KnownClass, name: string): KnownClass["text"]["entries"][number] | undefined {
    return owner.text.entries.find(({ token }) => token.text === name);
  }

  /** A case of one of the SDK's enums that source names: the enum depends on what the case holds. */
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
      // A case that is called as what it holds has another name when that has.
      const isNamedSo = name.slice(name.lastIndexOf(".") + 1).toLowerCase() === token.text.toLowerCase();
      this.tell?.(name, isNamedSo ? kind : done, token);
    }
  }

  /** A case or a constant of something of which nothing is known: it may be of any type of the SDK that has one. */
  protected reachesAnyCase(token: Token): void {
    // Every open union has these, whatever its contract says.
    if (token.text === "other" || token.text === "newer") return;
    for (const known of this.program.classes.values()) {
      const coordinate = this.sdk.coordinateOf(known);
      if (coordinate === undefined) continue;
      if (this.entryOf(known, token.text) ?? this.sdk.constant(coordinate, token.text))
        this.tell?.(printCoordinate(coordinate, "anyMember"), "reaches", token);
    }
  }

  /** An `.init(…)` of something of which nothing is known: it may build any record that takes such arguments. */
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

  /** `.init(…)` says no type. */
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

  /** A call behind a dot, on a value or on a type. */
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

/** Where an argument without a label goes: past the parameters that have one. */
function placeOf(count: number, parameters: readonly ParameterText[]): number {
  const unlabelled = parameters.flatMap(({ name }, at) => (name === "" ? [at] : []));
  return parameters.length === 0 ? count : (unlabelled[count] ?? unlabelled.at(-1) ?? count);
}

/** Where a closure behind the parentheses goes: to the first function that nothing was given for. */
function closureAt({ wanted, parameters = [] }: Taking, given: readonly Given[], label: string | undefined): number {
  if (label !== undefined) return parameters.findIndex(({ name }) => name === label);
  const free = wanted.findIndex(
    (each, at) =>
      each?.function !== undefined && !given.some(({ name }) => name !== undefined && name === parameters[at]?.name),
  );
  return free >= 0 ? free : wanted.length - 1;
}

/** `.free`, `[.free, .reserved]`: members of whatever type is wanted; a whole number is of any kind of number. */
function saysNoType(tokens: readonly Token[]): boolean {
  const [first, second] = tokens;
  if (tokens.length === 1 && first?.kind === "number") return !/[.eE]/.test(first.text);
  const isImplicit = first?.text === "." || (first?.text === "[" && second?.text === ".");
  return isImplicit && !tokens.some(({ kind, text }) => kind === "name" && /^\p{Lu}/u.test(text));
}
