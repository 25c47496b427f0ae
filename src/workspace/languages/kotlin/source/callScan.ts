import type { ParameterText } from "./declarations.js";
import type { Home, KnownClass, KnownFunction, Type } from "./knownProgram.js";
import type { Reader } from "./reader.js";
import type { Scope } from "./scope.js";
import { builtIn, calledAlone, calledOn, type KnownCall } from "./standardLibrary.js";
import type { Token } from "./tokens.js";
import type { Given, Value } from "./values.js";
import { Resolver } from "./resolver.js";

/** Calls: of the SDK, of the app, and of the language. */
export abstract class CallScan extends Resolver {
  protected abstract lambda(
    reader: Reader,
    scope: Scope,
    parameters: readonly (Type | undefined)[],
    receiver: Type | undefined,
  ): { readonly type: Type };

  protected callAlone(
    token: Token,
    typeArguments: readonly (Type | undefined)[],
    reader: Reader,
    scope: Scope,
    wanted?: Type,
  ): Value {
    const { text } = token;
    const local = scope.localFunction(text);
    if (local) {
      this.callArguments(
        reader,
        scope,
        local.parameters.map((each) => this.program.typeOf(each.type, scope.home)),
      );
      return { type: this.program.typeOf(local.result, scope.home) };
    }
    if (scope.has(text)) {
      const type = scope.variable(text);
      this.callArguments(reader, scope, type?.function?.parameters ?? []);
      return { type: type?.function?.result };
    }
    const found = this.functionAlone(text, scope);
    if (found) return this.called(found, undefined, token, reader, scope);
    for (const receiver of scope.receivers) {
      const known = this.program.classOf(receiver);
      if (known?.text.isData === true && text === "copy") return this.copied(known, receiver, reader, scope);
      const property = known && this.propertyOf(known, text);
      const type = property && this.memberType(property.text, property.owner, receiver);
      if (!type?.function) continue;
      this.callArguments(reader, scope, type.function.parameters);
      return { type: type.function.result };
    }
    const known = this.classNamed([text], scope.home);
    if (known) return this.constructed(known, token, reader, scope, wanted);
    const implicit = scope.receivers.map((receiver) => calledOn(receiver, text)).find((each) => each !== undefined);
    return this.calledKnown((first) => calledAlone(text, first, typeArguments[0]) ?? implicit, reader, scope);
  }

  protected callOn(
    of: Value,
    token: Token,
    typeArguments: readonly (Type | undefined)[],
    reader: Reader,
    scope: Scope,
  ): Value {
    const { text } = token;
    if (of.named) {
      const nested = this.classNamed([...of.named.name.split("."), text], { ...scope.home, around: [] });
      if (nested) return this.constructed(nested, token, reader, scope);
      const owner = of.named.text.kind === "object" ? of.named : this.companionOf(of.named);
      const found = this.functionOn(builtIn(owner.name), text, scope);
      if (found) return this.called(found, builtIn(owner.name), token, reader, scope);
      this.callArguments(reader, scope, []);
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
    if (whole) return this.constructed(whole, token, reader, scope);
    const found = this.functionOn(of.type, text, scope);
    if (found?.text.receiver && this.isHandedOn(of.type, this.program.typeOf(found.text.receiver, found.home)))
      this.passes(of);
    if (found) return this.called(found, of.type, token, reader, scope);
    const known = this.program.classOf(of.type);
    if (known?.text.isData === true && of.type) {
      if (text === "copy") return this.copied(known, of.type, reader, scope);
      const at = /^component(\d+)$/.exec(text)?.[1];
      const parameter = at === undefined ? undefined : known.text.parameters[Number(at) - 1];
      if (parameter) {
        this.reads(known, parameter.name, token);
        this.callArguments(reader, scope, []);
        return { type: this.memberType(parameter, known, of.type) };
      }
    }
    const property = known && this.propertyOf(known, text);
    const held = property && of.type && this.memberType(property.text, property.owner, of.type);
    if (held?.function) {
      if (property) this.reads(property.owner, text, token);
      this.callArguments(reader, scope, held.function.parameters);
      return { type: held.function.result };
    }
    if (text === "filterIsInstance" && typeArguments[0]) {
      this.callArguments(reader, scope, []);
      return { type: builtIn("List", typeArguments[0]) };
    }
    if (text === "joinToString" || text === "toString") for (const each of of.read ?? []) each.kind = "shows";
    return this.calledKnown(() => calledOn(of.type, text), reader, scope);
  }

  protected called(
    found: KnownFunction,
    receiver: Type | undefined,
    token: Token,
    reader: Reader,
    scope: Scope,
  ): Value {
    const { text, home } = found;
    const bound = new Map<string, Type | undefined>();
    this.bind(text.receiver, receiver, text.typeParameters, bound);
    const inside: Home = {
      ...home,
      parameters: new Map([...home.parameters, ...text.typeParameters.map((each) => [each, bound.get(each)] as const)]),
    };
    const given = this.callArguments(
      reader,
      scope,
      text.parameters.map((each) => this.program.typeOf(each.type, inside)),
      text.parameters,
    );
    text.parameters.forEach((each, at) => {
      const argument =
        given.find(({ name }) => name === each.name) ?? (given[at]?.name === undefined ? given[at] : undefined);
      const result = argument?.type?.function?.result;
      this.bind(each.type, argument?.type, text.typeParameters, bound);
      if (each.type?.function && result) this.bind(each.type.function.result, result, text.typeParameters, bound);
    });
    const call = this.sdk.isCall(found) ? { called: { ...token, text: found.text.name } } : {};
    if (this.sdk.isCall(found)) this.sdkCall(found, given, token);
    const whole: KnownFunction = { text, home: { ...home, parameters: new Map([...home.parameters, ...bound]) } };
    if (text.result)
      return {
        type: this.program.typeOf(text.result, {
          ...whole.home,
          parameters: new Map([
            ...home.parameters,
            ...text.typeParameters.map((each) => [each, bound.get(each)] as const),
          ]),
        }),
        ...call,
      };
    return { type: this.resultOf(found, receiver), ...call };
  }

  protected sdkCall({ text }: KnownFunction, given: readonly Given[], token: Token): void {
    this.tell?.(text.name, "calls", token);
    const call = this.sdk.callOf(text.name);
    text.parameters.forEach((parameter, at) => {
      if (parameter.name === "options") return;
      const argument =
        given.find(({ name }) => name === parameter.name) ?? (given[at]?.name === undefined ? given[at] : undefined);
      if (argument) this.tell?.(`${call}(${parameter.name})`, "writes", argument.token);
      else this.tell?.(`${call}(${parameter.name})?`, "omits", token);
    });
  }

  protected constructed(known: KnownClass, token: Token, reader: Reader, scope: Scope, wanted?: Type): Value {
    const { parameters, typeParameters } = known.text;
    const inside: Home = {
      file: known.home.file,
      around: [...known.home.around, known],
      parameters: new Map([...known.home.parameters, ...typeParameters.map((each) => [each, undefined] as const)]),
    };
    const given = this.callArguments(
      reader,
      scope,
      parameters.map((each) => this.program.typeOf(each.type, inside)),
      parameters,
    );
    this.builds(known, given, token);
    const bound = new Map<string, Type | undefined>();
    parameters.forEach((each, at) => {
      const argument =
        given.find(({ name }) => name === each.name) ?? (given[at]?.name === undefined ? given[at] : undefined);
      this.bind(each.type, argument?.type, typeParameters, bound);
    });
    const own = wanted?.name === known.name ? wanted.arguments : [];
    return { type: builtIn(known.name, ...typeParameters.map((each, at) => bound.get(each) ?? own[at])) };
  }

  /** @param given undefined where the constructor is handed on */
  protected builds(known: KnownClass, given: readonly Given[] | undefined, token: Token): void {
    const coordinate = this.sdk.coordinateOf(known);
    if (coordinate === undefined) return;
    if (coordinate === this.sdk.connect) {
      this.tell?.("connection", "calls", token);
      for (const { name, token: at } of given ?? [])
        if (name !== undefined) this.tell?.(`${this.sdk.connect}.${name}`, "writes", at);
      return;
    }
    if (coordinate.endsWith("Auth") && `${coordinate.slice(0, -"Auth".length)}Connection` === this.sdk.connect) {
      for (const { name, token: at } of given ?? [])
        if (name !== undefined) this.tell?.(`${this.sdk.connect}.${this.sdk.scheme(name)}`, "writes", at);
      return;
    }
    this.tell?.(coordinate, "names", token);
    if (known.text.parameters.length === 0 && !known.text.isData) return;
    if (this.sdk.constant(coordinate, "") === undefined) this.tell?.(`${coordinate}{}`, "builds", token);
    known.text.parameters.forEach((parameter, at) => {
      const member = `${coordinate}.${this.sdk.member(coordinate, parameter.name)}`;
      const argument =
        given?.find(({ name }) => name === parameter.name) ??
        (given?.[at]?.name === undefined ? given?.[at] : undefined);
      if (argument) this.tell?.(member, "writes", argument.token);
      else if (given) this.tell?.(`${member}?`, "omits", token);
    });
  }

  protected copied(known: KnownClass, type: Type, reader: Reader, scope: Scope): Value {
    const { parameters } = known.text;
    const wanted = parameters.map((each) => this.memberType(each, known, type));
    const given = this.callArguments(reader, scope, wanted, parameters);
    const coordinate = this.sdk.coordinateOf(known);
    if (coordinate !== undefined)
      given.forEach(({ name, token }, at) => {
        const parameter = name ?? parameters[at]?.name;
        if (parameter !== undefined)
          this.tell?.(`${coordinate}.${this.sdk.member(coordinate, parameter)}`, "writes", token);
      });
    return { type: { ...type, isNullable: false } };
  }

  /** A function of the language, whose lambdas are given what it is known to give them. */
  protected calledKnown(of: (first: Type | undefined) => KnownCall | undefined, reader: Reader, scope: Scope): Value {
    let known = of(undefined);
    const given = this.callArguments(reader, scope, [], [], (first) => {
      known = of(first);
      return known;
    });
    known = of(given[0]?.type) ?? known;
    const lambda = [...given].reverse().find(({ isLambda }) => isLambda);
    const made = lambda?.type?.function
      ? lambda.type.function.result
      : (given[0]?.type?.function?.result ?? given[0]?.type);
    const read = given.flatMap((each) => each.read);
    if (known?.shows === true) for (const each of read) each.kind = "shows";
    return { type: known?.result(made), ...(known?.holds === true ? { read } : {}) };
  }

  /** Arguments in parentheses, and a lambda behind them. */
  protected callArguments(
    reader: Reader,
    scope: Scope,
    wanted: readonly (Type | undefined)[],
    parameters: readonly ParameterText[] = [],
    known?: (first: Type | undefined) => KnownCall | undefined,
  ): Given[] {
    const given =
      reader.is("(") && !reader.token.startsLine
        ? this.arguments(reader.from(...reader.skipBrackets()), scope, wanted, parameters, known)
        : [];
    if (!reader.is("{") || reader.token.startsLine) return given;
    const { token } = reader;
    const last = wanted.at(-1)?.function;
    const call = known?.(given[0]?.type);
    const { type } = this.lambda(reader, scope, last?.parameters ?? call?.given ?? [], last?.receiver ?? call?.inside);
    return [...given, { name: parameters.at(-1)?.name, token, type, read: [], isLambda: true }];
  }

  protected arguments(
    reader: Reader,
    scope: Scope,
    wanted: readonly (Type | undefined)[],
    parameters: readonly ParameterText[] = [],
    known?: (first: Type | undefined) => KnownCall | undefined,
  ): Given[] {
    const given: Given[] = [];
    while (!reader.isAtEnd) {
      const before = reader.at;
      const isNamed = reader.token.kind === "name" && reader.peek(1).text === "=" && reader.peek(1).kind === "symbol";
      const { token } = reader;
      const name = isNamed ? reader.next().text : undefined;
      if (isNamed) reader.next();
      const at = name === undefined ? given.length : parameters.findIndex((each) => each.name === name);
      const isLambda = reader.is("{");
      const call = known?.(given[0]?.type);
      const value: Value = isLambda
        ? this.lambda(
            reader,
            scope,
            wanted[at]?.function?.parameters ?? call?.given ?? [],
            wanted[at]?.function?.receiver ?? call?.inside,
          )
        : this.expression(reader, scope, wanted[at]);
      given.push({ name, token, type: value.type, read: value.read ?? [], isLambda });
      if (!reader.takes(",") && reader.at === before) reader.next();
    }
    return given;
  }
}
