import {
  connectionCoordinate,
  givenTo,
  memberOf,
  printCoordinate,
  type Coordinate,
} from "../../../core/use/coordinate.js";
import type { FunctionText, ParameterText } from "./declared.js";
import type { Home, KnownClass, KnownFunction, Type } from "./knownProgram.js";
import type { Reader } from "./reader.js";
import type { Scope } from "./scope.js";
import { builtIn, type GivenType } from "./library.js";
import type { Token } from "./token.js";
import {
  nothingKnown,
  onlyDone,
  type CallSite,
  type Given,
  type LambdaGiven,
  type Taking,
  type Value,
} from "./values.js";
import { Resolver } from "./resolver.js";

/** The largest nesting of calls for which a function of several is chosen by its arguments. */
const mostChoosing = 3;

/** Scans calls: of the SDK, of the app, and of the language. */
export abstract class CallScan extends Resolver {
  protected abstract lambda(
    reader: Reader,
    scope: Scope,
    given: LambdaGiven,
  ): Pick<Value, "read" | "held"> & { readonly type: Type };

  /** A call of a name alone: a function, a class, a value. */
  protected callAlone(site: CallSite): Value {
    const { token, typeArguments, reader, scope } = site;
    const { text } = token;
    const local = scope.localFunction(text);
    if (local) {
      const wanted = local.parameters.map((each) => this.program.typeOf(each.type, scope.home));
      this.callArguments(reader, scope, { wanted });
      return { type: this.program.typeOf(local.result, scope.home) };
    }
    if (scope.has(text)) {
      const type = scope.variable(text);
      this.callArguments(reader, scope, { wanted: type?.function?.parameters ?? [] });
      return { type: type?.function?.result };
    }
    const found = this.functionAlone(text, scope);
    if (found) return this.called(found, undefined, site);
    for (const receiver of scope.receivers) {
      const known = this.program.classOf(receiver);
      if (known?.text.isData === true && text === "copy") return this.copied(known, receiver, site);
      const property = known && this.propertyOf(known, text);
      const type = property && this.memberType(property.text, property.owner, receiver);
      if (!type?.function) continue;
      this.callArguments(reader, scope, { wanted: type.function.parameters });
      return { type: type.function.result };
    }
    const known = this.classNamed([text], scope.home);
    if (known) return this.constructed(known, site);
    const implicit = scope.receivers
      .map((receiver) => (given: readonly GivenType[]) => this.library.calledOn(receiver, text, given))
      .find((call) => call([]) !== undefined);
    return this.calledKnown(site, (given) => this.library.calledAlone(text, given, typeArguments) ?? implicit?.(given));
  }

  /** A call after a dot. */
  protected callOn(of: Value, site: CallSite): Value {
    const { token, typeArguments, reader, scope } = site;
    const { text } = token;
    if (of.named) {
      const nested = this.classNamed([...of.named.name.split("."), text], { ...scope.home, around: [] });
      if (nested) return this.constructed(nested, site);
      const owner = of.named.text.kind === "object" ? of.named : this.companionOf(of.named);
      const found = this.functionOn(builtIn(owner.name), text, scope);
      if (found) return this.called(found, builtIn(owner.name), site);
      this.callArguments(reader, scope, nothingKnown);
      return {
        type:
          text === "valueOf"
            ? builtIn(of.named.name)
            : text === "values"
              ? builtIn("List", builtIn(of.named.name))
              : undefined,
      };
    }
    const whole = of.path === undefined || of.type ? undefined : this.program.classes.get(`${of.path}.${text}`);
    if (whole) return this.constructed(whole, site);
    const found = this.functionOn(of.type, text, scope);
    if (found?.text.receiver && this.isHandedOn(of.type, this.program.typeOf(found.text.receiver, found.home)))
      this.passes(of);
    if (found) return this.called(found, of.type, site);
    const known = this.program.classOf(of.type);
    if (known?.text.isData === true && of.type) {
      if (text === "copy") return this.copied(known, of.type, site);
      const at = /^component(\d+)$/.exec(text)?.[1];
      const parameter = at === undefined ? undefined : known.text.parameters[Number(at) - 1];
      if (parameter) {
        this.reads(known, parameter.name, token);
        this.callArguments(reader, scope, nothingKnown);
        return { type: this.memberType(parameter, known, of.type) };
      }
    }
    const property = known && this.propertyOf(known, text);
    const held = property && of.type && this.memberType(property.text, property.owner, of.type);
    if (held?.function) {
      if (property) this.reads(property.owner, text, token);
      this.callArguments(reader, scope, { wanted: held.function.parameters });
      return { type: held.function.result };
    }
    if (text === "filterIsInstance" && typeArguments[0]) {
      this.callArguments(reader, scope, nothingKnown);
      return { type: builtIn("List", typeArguments[0]) };
    }
    if (text === "toString" || (text === "joinToString" && !this.takesFunction(reader.from(reader.at))))
      onlyDone(of, "shows");
    const value = this.calledKnown(site, (given) => this.library.calledOn(of.type, text, given));
    return this.library.calledOn(of.type, text, [])?.keeps === true
      ? { ...value, read: [...(of.read ?? []), ...(value.read ?? [])] }
      : value;
  }

  /** Whether a call receives a function: a lambda, or a reference to one. */
  private takesFunction(reader: Reader): boolean {
    const from = reader.at;
    if (reader.is("(")) reader.skipBrackets();
    const inside = reader.tokens.slice(from, reader.at);
    return (
      (reader.is("{") && !reader.token.startsLine) ||
      inside.some(({ kind, text }) => kind === "symbol" && (text === "{" || text === "::"))
    );
  }

  /** A function of the app or the SDK: of several with the name, the one that accepts the arguments. */
  protected called(found: KnownFunction, receiver: Type | undefined, site: CallSite): Value {
    return this.calledAs(this.overloadFor(found, site), receiver, site);
  }

  private overloadFor(found: KnownFunction, { reader, scope }: CallSite): KnownFunction {
    const all = this.overloadsOf(found);
    // Each level of calls inside calls is read twice, which must not add up.
    if (all.length < 2 || this.shared.choosing >= mostChoosing) return found;
    this.shared.choosing++;
    const given = this.silent().callArguments(reader.from(reader.at), scope, nothingKnown);
    this.shared.choosing--;
    const values = given.filter(({ isLambda }) => !isLambda);
    const labels = values.map(({ name }) => name);
    const fitting = all.filter(({ text: { parameters } }) => {
      const needed = parameters.filter(({ type, hasDefault }) => !hasDefault && !type?.function);
      return needed.length <= given.length && this.fitsLabels(labels, parameters);
    });
    const accepts = ({ text, home }: KnownFunction): boolean =>
      values.every(({ name, type }, at) => {
        const { parameters } = text;
        const parameter =
          (name === undefined ? undefined : parameters.find((each) => each.name === name)) ?? parameters[at];
        const wanted = this.program.typeOf(parameter?.type, home);
        return !type || !wanted || text.typeParameters.includes(wanted.name) || this.fits(type, wanted);
      });
    return fitting.find(accepts) ?? fitting[0] ?? found;
  }

  /** Whether a function can be called with these labels of arguments; undefined for none. */
  protected fitsLabels(labels: readonly (string | undefined)[], parameters: readonly ParameterText[]): boolean {
    return (
      labels.length <= parameters.length &&
      labels.every((label) => label === undefined || parameters.some(({ name }) => name === label))
    );
  }

  /** The functions that are declared beside one, with the same name. */
  protected overloadsOf({ text, home }: KnownFunction): KnownFunction[] {
    const beside = home.around.at(-1)?.text.functions.filter(({ name }) => name === text.name) ?? [];
    if (beside.includes(text)) return beside.map((each) => ({ text: each, home }));
    const path = (each: FunctionText): string => (each.receiver?.path ?? []).map((part) => part.text).join(".");
    const { isSdk, package: own } = home.file;
    // Two SDKs of one contract have the same names, in different packages.
    return (this.program.functions.get(text.name) ?? []).filter(
      (each) => each.home.file.isSdk === isSdk && each.home.file.package === own && path(each.text) === path(text),
    );
  }

  /** A function with its type parameters in this call. */
  protected calledAs(found: KnownFunction, receiver: Type | undefined, { token, reader, scope }: CallSite): Value {
    const { text, home } = found;
    const bound = new Map<string, Type | undefined>(text.typeParameters.map((each) => [each, undefined]));
    const ofReceiver = receiver ? this.inExtensionOf(receiver) : [];
    const inside = (): Home => ({ ...home, parameters: new Map([...home.parameters, ...ofReceiver, ...bound]) });
    this.bind(text.receiver, receiver, text.typeParameters, bound);
    const { parameters } = text;
    const wanted = parameters.map((each) => this.program.typeOf(each.type, inside()));
    const given = this.callArguments(reader, scope, { wanted, parameters });
    parameters.forEach(({ name, type }, at) => {
      const argument = argumentFor(given, name, at);
      const result = argument?.type?.function?.result;
      this.bind(type, argument?.type, text.typeParameters, bound);
      if (type?.function && result) this.bind(type.function.result, result, text.typeParameters, bound);
    });
    const isCall = this.sdk.isCall(found);
    if (isCall) this.sdkCall(found, given, token);
    return {
      type: text.result ? this.program.typeOf(text.result, inside()) : this.resultOf(found, receiver),
      ...(isCall ? { called: { ...token, text: text.name } } : {}),
    };
  }

  protected sdkCall({ text }: KnownFunction, given: readonly Given[], token: Token): void {
    this.tell?.(printCoordinate(text.name), "calls", token);
    const call = this.sdk.callOf(text.name);
    text.parameters.forEach((parameter, at) => {
      if (parameter.name === "options") return;
      const argument = argumentFor(given, parameter.name, at);
      if (argument) this.writes(givenTo(call, parameter.name), argument);
      else this.tell?.(printCoordinate(givenTo(call, parameter.name), "omitted"), "omits", token);
    });
  }

  private writes(coordinate: Coordinate, { token, isUntyped }: Given): void {
    const told = this.tell?.(coordinate, "writes", token);
    if (told && isUntyped === true) told.isUntyped = true;
  }

  protected constructed(known: KnownClass, { token, reader, scope, wanted }: CallSite): Value {
    const { parameters, typeParameters } = known.text;
    const inside: Home = {
      file: known.home.file,
      around: [...known.home.around, known],
      parameters: new Map([...known.home.parameters, ...typeParameters.map((each) => [each, undefined] as const)]),
    };
    const given = this.callArguments(reader, scope, {
      wanted: parameters.map((each) => this.program.typeOf(each.type, inside)),
      parameters,
    });
    this.builds(known, given, token);
    const bound = new Map<string, Type | undefined>();
    parameters.forEach((each, at) => {
      const type = argumentFor(given, each.name, at)?.type;
      this.bind(each.type, type, typeParameters, bound);
      // `Loader { try await harbour.getBerth(…) }`
      if (each.type?.function) this.bind(each.type.function.result, type?.function?.result, typeParameters, bound);
    });
    const own = wanted?.name === known.name ? wanted.arguments : [];
    return { type: builtIn(known.name, ...typeParameters.map((each, at) => bound.get(each) ?? own[at])) };
  }

  /** @param given undefined if the constructor is passed on */
  protected builds(known: KnownClass, given: readonly Given[] | undefined, token: Token): void {
    const coordinate = this.sdk.coordinateOf(known);
    if (coordinate === undefined) return;
    if (coordinate === this.sdk.connect) {
      this.tell?.(connectionCoordinate, "calls", token);
      for (const { name, token: at } of given ?? [])
        if (name !== undefined) this.tell?.(memberOf(this.sdk.connect, name), "writes", at);
      return;
    }
    if (coordinate.endsWith("Auth") && `${coordinate.slice(0, -"Auth".length)}Connection` === this.sdk.connect) {
      for (const { name, token: at } of given ?? [])
        if (name !== undefined) this.tell?.(memberOf(this.sdk.connect, this.sdk.scheme(name)), "writes", at);
      return;
    }
    this.namesBuilt(coordinate, token);
    if (known.text.parameters.length === 0 && !known.text.isData) return;
    if (this.sdk.constant(coordinate, "") === undefined)
      this.tell?.(printCoordinate(coordinate, "built"), "builds", token);
    known.text.parameters.forEach((parameter, at) => {
      const member = memberOf(coordinate, this.sdk.member(coordinate, parameter.name));
      const argument = given && argumentFor(given, parameter.name, at);
      if (argument) this.writes(member, argument);
      else if (given) this.tell?.(printCoordinate(member, "omitted"), "omits", token);
    });
  }

  /** In most languages, building a record names its type. */
  protected namesBuilt(coordinate: Coordinate, token: Token): void {
    this.tell?.(coordinate, "names", token);
  }

  protected copied(known: KnownClass, type: Type, { reader, scope }: CallSite): Value {
    const { parameters } = known.text;
    const wanted = parameters.map((each) => this.memberType(each, known, type));
    const given = this.callArguments(reader, scope, { wanted, parameters });
    const coordinate = this.sdk.coordinateOf(known);
    if (coordinate !== undefined)
      given.forEach(({ name, token }, at) => {
        const parameter = name ?? parameters[at]?.name;
        if (parameter !== undefined)
          this.tell?.(memberOf(coordinate, this.sdk.member(coordinate, parameter)), "writes", token);
      });
    return { type: { ...type, isNullable: false } };
  }

  /** A function of the language, whose lambdas receive known types. */
  protected calledKnown({ reader, scope }: CallSite, known: NonNullable<Taking["known"]>): Value {
    const given = this.callArguments(reader, scope, { wanted: [], known });
    const [first] = given;
    const call = known(given);
    const lambda = [...given].reverse().find(({ isLambda }) => isLambda) ?? first;
    const read = given.flatMap((each) => each.read);
    if (call?.shows === true) for (const each of given) onlyDone(each, "shows");
    if (call?.orders === true && lambda?.isLambda === true) onlyDone(lambda, "orders");
    const made = lambda?.type?.function ? lambda.type.function.result : lambda?.type;
    return { type: call?.result(made), ...(call?.holds === true ? { read } : {}) };
  }

  /** Arguments in parentheses, and a lambda after them. */
  protected callArguments(reader: Reader, scope: Scope, taking: Taking): Given[] {
    const given =
      reader.is("(") && !reader.token.startsLine
        ? this.arguments(reader.from(...reader.skipBrackets()), scope, taking)
        : [];
    if (!reader.is("{") || reader.token.startsLine) return given;
    const { token } = reader;
    const { type, read = [], held } = this.lambda(reader, scope, lambdaGiven(taking, taking.wanted.length - 1, given));
    const lambda: Given = {
      name: taking.parameters?.at(-1)?.name,
      token,
      type,
      read,
      computed: [],
      held,
      isLambda: true,
    };
    return [...given, lambda];
  }

  /** Arguments up to the end of the reader. */
  protected arguments(reader: Reader, scope: Scope, taking: Taking): Given[] {
    const { wanted, parameters = [] } = taking;
    const given: Given[] = [];
    while (!reader.isAtEnd) {
      const before = reader.at;
      const isNamed = reader.token.kind === "name" && reader.peek(1).text === "=" && reader.peek(1).kind === "symbol";
      const { token } = reader;
      const name = isNamed ? reader.next().text : undefined;
      if (isNamed) reader.next();
      const at = name === undefined ? given.length : parameters.findIndex((each) => each.name === name);
      const isLambda = reader.is("{");
      const value: Value = isLambda
        ? this.lambda(reader, scope, lambdaGiven(taking, at, given))
        : this.expression(reader, scope, wanted[at]);
      const { type, read = [], computed = [], held } = value;
      given.push({ name, token, type, read, computed, held, isLambda });
      if (!reader.takes(",") && reader.at === before) reader.next();
    }
    return given;
  }
}

/** The argument of a parameter, by its name or its position. */
function argumentFor(given: readonly Given[], name: string, at: number): Given | undefined {
  return given.find((each) => each.name === name) ?? (given[at]?.name === undefined ? given[at] : undefined);
}

/** The parameter types of the lambda at a position of the arguments. */
function lambdaGiven({ wanted, known }: Taking, at: number, given: readonly Given[]): LambdaGiven {
  const declared = wanted[at]?.function;
  const call = known?.(given);
  return { parameters: declared?.parameters ?? call?.given ?? [], receiver: declared?.receiver ?? call?.inside };
}
