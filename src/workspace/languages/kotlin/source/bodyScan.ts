import { positionOf } from "../../../../core/use/coordinate.js";
import type { ClassText, Declarations, FunctionText, PropertyText } from "../../source/declared.js";
import { builtIn } from "../../source/library.js";
import { readDeclaration, readModifiers } from "./declarations.js";
import type { KnownClass, Home, Type } from "../../source/knownProgram.js";
import { Reader } from "../../source/reader.js";
import { Scope } from "../../source/scope.js";
import { delegated, itemOf, knownComponent } from "./standardLibrary.js";
import type { Token } from "../../source/token.js";
import { readType, readTypeArguments } from "./readType.js";
import { nothing, nothingKnown, type LambdaGiven, type Narrowing, type Value, unit } from "../../source/values.js";
import type { Told } from "../../source/told.js";
import { ExpressionScan } from "./expressionScan.js";

const jumps = new Set(["return", "throw", "break", "continue"]);

/** Scans the bodies of source, with the known types of its expressions. */
export class BodyScan extends ExpressionScan {
  /** Scans all declarations of a file or a class. */
  declarations(
    declared: Declarations,
    home: Home,
    { tokens, receivers = [] }: { readonly tokens: readonly Token[]; readonly receivers?: readonly Type[] | undefined },
  ): void {
    for (const { type } of declared.aliases) this.typeText(type, home);
    for (const text of declared.properties) this.property(text, home, { tokens, receivers });
    for (const text of declared.functions) this.function(text, new Scope(home, receivers), tokens);
    for (const range of declared.initial) this.block(new Reader(tokens, ...range), new Scope(home, receivers));
    for (const text of declared.classes) this.class(text, home, { tokens });
  }

  private class(
    text: ClassText,
    home: Home,
    { tokens, around = [] }: { readonly tokens: readonly Token[]; readonly around?: readonly Type[] | undefined },
  ): void {
    const known = this.knownOf(text, home);
    const parameters = new Map([...home.parameters, ...text.typeParameters.map((each) => [each, undefined] as const)]);
    const inside: Home = { file: home.file, around: known ? [...home.around, known] : home.around, parameters };
    const self = known
      ? [builtIn(known.name, ...text.typeParameters.map(() => undefined))]
      : text.supers.flatMap((each) => this.program.typeOf(each, home) ?? []);
    const receivers = [...self, ...around];
    const scope = new Scope(inside, receivers);
    for (const each of text.supers) this.typeText(each, home);
    for (const parameter of text.parameters) {
      this.typeText(parameter.type, inside);
      if (parameter.initial)
        this.expression(new Reader(tokens, ...parameter.initial), scope, this.program.typeOf(parameter.type, inside));
    }
    const constructor = scope.inside();
    for (const { name, type } of text.parameters) constructor.declare(name, this.program.typeOf(type, inside));
    for (const range of text.superArguments) this.arguments(new Reader(tokens, ...range), constructor, nothingKnown);
    for (const entry of text.entries)
      if (entry.arguments) this.arguments(new Reader(tokens, ...entry.arguments), scope, nothingKnown);
    for (const property of text.properties) this.property(property, inside, { tokens, receivers, scope: constructor });
    for (const range of text.initial) this.block(new Reader(tokens, ...range), constructor.inside());
    for (const each of text.functions) this.function(each, new Scope(inside, receivers), tokens);
    for (const { type } of text.aliases) this.typeText(type, inside);
    for (const each of text.classes) this.class(each, inside, { tokens });
    for (const each of text.companions) this.class(each, inside, { tokens });
  }

  private property(
    text: PropertyText,
    home: Home,
    {
      tokens,
      receivers,
      scope = new Scope(home, receivers),
    }: { readonly tokens: readonly Token[]; readonly receivers: readonly Type[]; readonly scope?: Scope | undefined },
  ): void {
    this.typeText(text.type, home);
    this.typeText(text.receiver, home);
    const wanted = this.program.typeOf(text.type, home);
    if (text.initial) this.expression(new Reader(tokens, ...text.initial), scope, wanted);
    if (!text.getter) return;
    const own = this.program.typeOf(text.receiver, home);
    const inside = new Scope(home, own ? [own, ...receivers] : receivers);
    const reader = new Reader(tokens, ...text.getter.range);
    if (text.getter.isExpression) this.expression(reader, inside, wanted);
    else this.block(reader, inside);
  }

  protected function(text: FunctionText, outer: Scope, tokens: readonly Token[]): Type | undefined {
    const parameters = new Map([
      ...outer.home.parameters,
      ...text.typeParameters.map((each) => [each, this.program.typeOf(text.bounds?.get(each), outer.home)] as const),
    ]);
    const home: Home = { ...outer.home, parameters };
    for (const bound of text.bounds?.values() ?? []) this.typeText(bound, home);
    this.typeText(text.receiver, home);
    this.typeText(text.result, home);
    const own = this.program.typeOf(text.receiver, home);
    const scope = new Scope(home, own ? [own, ...outer.receivers] : outer.receivers, outer);
    for (const parameter of text.parameters) {
      this.typeText(parameter.type, home);
      const type = this.program.typeOf(parameter.type, home);
      if (parameter.initial) this.expression(new Reader(tokens, ...parameter.initial), scope, type);
      scope.declare(parameter.name, type);
    }
    if (!text.body) return undefined;
    const reader = new Reader(tokens, ...text.body.range);
    const wanted = this.program.typeOf(text.result, home);
    if (text.body.isExpression) return this.expression(reader, scope, wanted).type;
    this.returning.push(wanted);
    this.block(reader, scope);
    this.returning.pop();
    return undefined;
  }

  /** The declared return types of the functions around. */
  private readonly returning: (Type | undefined)[] = [];

  /** Scans statements up to the end of the reader. Returns the value of the last one. */
  private block(reader: Reader, scope: Scope): Value {
    let last: Value = { type: unit };
    while (!reader.isAtEnd) {
      const before = reader.at;
      last = this.statement(reader, scope);
      if (reader.at === before) reader.next();
    }
    return last;
  }

  private statement(reader: Reader, scope: Scope): Value {
    const before = reader.at;
    readModifiers(reader);
    if (reader.token.kind === "name")
      switch (reader.token.text) {
        case "val":
        case "var":
          this.local(reader, scope);
          return { type: unit };
        case "fun":
          if (reader.peek(1).kind !== "name" && reader.peek(1).text !== "<") break;
          reader.at = before;
          this.localDeclaration(reader, scope);
          return { type: unit };
        case "class":
        case "interface":
          reader.at = before;
          this.localDeclaration(reader, scope);
          return { type: unit };
        case "for":
          this.loop(reader, scope);
          return { type: unit };
        case "while":
          reader.next();
          this.branch(reader, this.conditioned(reader, scope));
          return { type: unit };
        case "do": {
          reader.next();
          const inside = scope.inside();
          this.branch(reader, inside);
          if (reader.takes("while")) this.condition(reader, inside);
          return { type: unit };
        }
      }
    const value = this.unflushed(reader, scope);
    const { type, path } = value;
    const operator = reader.token.text;
    if (
      reader.token.kind === "symbol" &&
      ["=", "+=", "-=", "*=", "/="].includes(operator) &&
      !reader.token.startsLine
    ) {
      reader.next();
      const given = this.expression(reader, scope, type);
      // The type of an assigned value is more exact than the declared type.
      if (operator === "=" && path !== undefined && given.type && scope.has(path) && !type)
        scope.declare(path, given.type);
      return { type: unit };
    }
    return value;
  }

  private localDeclaration(reader: Reader, scope: Scope): void {
    const found: Declarations = { classes: [], functions: [], properties: [], aliases: [], initial: [] };
    if (!readDeclaration(reader, found)) return;
    for (const text of found.functions) {
      scope.functions.set(text.name, text);
      this.function(text, scope, reader.tokens);
    }
    for (const text of found.classes) this.class(text, scope.home, { tokens: reader.tokens, around: scope.receivers });
  }

  private local(reader: Reader, scope: Scope): void {
    const isConstant = reader.next().text === "val";
    if (reader.is("(")) {
      const [from, to] = reader.skipBrackets();
      const names = this.destructured(reader.from(from, to), scope);
      const value = reader.takes("=") ? this.expression(reader, scope) : {};
      this.takeApart(names, value.type, { scope, isConstant });
      if (isConstant)
        names.forEach(({ token, type }, at) => {
          this.holds(scope, token?.text, type ? [] : value.parts?.[at]);
        });
      return;
    }
    const name = reader.name()?.text ?? "";
    const text = reader.takes(":") ? readType(reader) : undefined;
    this.typeText(text, scope.home);
    const declared = this.program.typeOf(text, scope.home);
    let type = declared;
    let read: Value["read"];
    if (reader.is("by")) {
      reader.next();
      type = declared ?? delegated(this.expression(reader, scope).type);
    } else if (reader.takes("=")) {
      const value = this.expression(reader, scope, declared);
      type = declared ?? value.type;
      if (isConstant && !text) ({ read } = value);
      scope.declare(name, type);
      for (const { path, type: known } of value.fails ?? []) if (value.type === nothing) scope.narrow(path, known);
    }
    scope.declare(name, type);
    this.holds(scope, name, read);
  }

  /** A variable has the value of SDK members, so its uses are uses of those members. */
  private holds(scope: Scope, name: string | undefined, read: Value["read"] = []): void {
    if (name === undefined || name === "_" || read.length === 0) return;
    const holder = { read, places: [] };
    scope.hold(name, holder);
    this.shared.holders.push(holder);
  }

  /** Names in parentheses, with their declared types. */
  private destructured(
    reader: Reader,
    scope: Scope,
  ): { readonly token: Token | undefined; readonly type: Type | undefined }[] {
    const found: { token: Token | undefined; type: Type | undefined }[] = [];
    while (!reader.isAtEnd) {
      readModifiers(reader);
      const token = reader.name();
      const text = reader.takes(":") ? readType(reader) : undefined;
      this.typeText(text, scope.home);
      found.push({ token, type: this.program.typeOf(text, scope.home) });
      if (!reader.takes(",")) break;
    }
    return found;
  }

  private takeApart(
    names: readonly { readonly token: Token | undefined; readonly type: Type | undefined }[],
    type: Type | undefined,
    { scope, isConstant }: { readonly scope: Scope; readonly isConstant: boolean },
  ): void {
    const known = this.program.classOf(type);
    names.forEach(({ token, type: declared }, at) => {
      if (!token) return;
      const parameter = known?.text.isData === true ? known.text.parameters[at] : undefined;
      const read = known && parameter && token.text !== "_" ? this.readsAt(known, parameter.name, { at, token }) : [];
      const of =
        parameter && known && type ? this.memberType(parameter, known, type) : type && knownComponent(type, at);
      if (token.text !== "_") scope.declare(token.text, declared ?? of);
      if (isConstant && !declared) this.holds(scope, token.text, read);
      if (!type && token.text !== "_") this.reachesAny(token);
    });
  }

  /** A member that is read by its position. */
  private readsAt(
    known: KnownClass,
    member: string,
    { at, token }: { readonly at: number; readonly token: Token },
  ): Told[] {
    const { read = [] } = this.reads(known, member, token);
    const coordinate = this.sdk.coordinateOf(known);
    const place = coordinate === undefined ? undefined : this.tell?.(positionOf(coordinate, at + 1), "reads", token);
    return place ? [...read, place] : [...read];
  }

  private loop(reader: Reader, scope: Scope): void {
    reader.next();
    const [from, to] = reader.skipBrackets();
    const head = reader.from(from, to);
    const inside = scope.inside();
    readModifiers(head);
    if (head.is("(")) {
      const names = this.destructured(head.from(...head.skipBrackets()), scope);
      head.takes("in");
      this.takeApart(names, itemOf(this.expression(head, scope).type), { scope: inside, isConstant: true });
    } else {
      const name = head.name()?.text ?? "";
      const text = head.takes(":") ? readType(head) : undefined;
      this.typeText(text, scope.home);
      head.takes("in");
      const item = itemOf(this.expression(head, scope).type);
      inside.declare(name, this.program.typeOf(text, scope.home) ?? item);
    }
    this.branch(reader, inside);
  }

  /** A block in braces, or one statement. */
  private branch(reader: Reader, scope: Scope): Type | undefined {
    if (reader.is("{")) return this.block(reader.from(...reader.skipBrackets()), scope).type;
    return this.statement(reader, scope).type;
  }

  private condition(reader: Reader, scope: Scope): Value {
    if (!reader.is("(")) return {};
    return this.expression(reader.from(...reader.skipBrackets()), scope);
  }

  private conditioned(reader: Reader, scope: Scope): Scope {
    const inside = scope.inside();
    for (const { path, type } of this.condition(reader, scope).holds ?? []) inside.narrow(path, type);
    return inside;
  }

  protected keyword(reader: Reader, scope: Scope, wanted?: Type): Value | undefined {
    const { text } = reader.token;
    switch (text) {
      case "if":
        return this.ifElse(reader, scope, wanted);
      case "when":
        return reader.peek(1).text === "(" || reader.peek(1).text === "{"
          ? this.when(reader, scope, wanted)
          : undefined;
      case "try":
        return this.tryCatch(reader, scope);
      case "object":
        return reader.peek(1).text === ":" || reader.peek(1).text === "{"
          ? this.objectLiteral(reader, scope)
          : undefined;
      case "fun":
        return reader.peek(1).text === "(" ? this.anonymous(reader, scope) : undefined;
      case "true":
      case "false":
        reader.next();
        return { type: builtIn("Boolean") };
      case "null":
        reader.next();
        return {};
      case "this": {
        reader.next();
        const label = reader.is("@") ? (reader.next(), reader.name()?.text) : undefined;
        const labelled =
          label === undefined ? undefined : scope.receivers.find(({ name }) => name.split(".").at(-1) === label);
        const type = labelled ?? scope.receivers[0];
        return { type, path: "this" };
      }
      case "super":
        reader.next();
        readTypeArguments(reader);
        return { type: this.superOf(scope) };
      default:
        if (!jumps.has(text)) return undefined;
        reader.next();
        if (reader.is("@") && reader.token.offset === reader.peek(-1).end) reader.at += 2;
        if (text === "throw" || (text === "return" && !reader.token.startsLine && beginsExpression(reader)))
          this.expression(reader, scope, this.returning.at(-1));
        return { type: nothing };
    }
  }

  private ifElse(reader: Reader, scope: Scope, wanted?: Type): Value {
    reader.next();
    const { holds = [], fails = [] } = this.condition(reader, scope);
    const branchOf = (known: readonly Narrowing[]): Type | undefined => {
      const inside = scope.inside();
      for (const { path, type } of known) inside.narrow(path, type);
      return this.valued(reader, inside, wanted);
    };
    const first = branchOf(holds);
    if (!reader.takes("else")) {
      if (first === nothing) for (const { path, type } of fails) scope.narrow(path, type);
      return { type: unit };
    }
    const second = branchOf(fails);
    if (second === nothing) for (const { path, type } of holds) scope.narrow(path, type);
    return { type: first === nothing || !first ? second : first };
  }

  /** A branch with a value. */
  private valued(reader: Reader, scope: Scope, wanted?: Type): Type | undefined {
    if (reader.is("{")) return this.block(reader.from(...reader.skipBrackets()), scope).type;
    const value = this.unflushed(reader, scope, wanted);
    if (reader.token.kind === "symbol" && /^[-+*/]?=$/.test(reader.token.text)) {
      reader.next();
      this.expression(reader, scope, value.type);
      return unit;
    }
    this.flush(value, "writes");
    return value.type;
  }

  private when(reader: Reader, scope: Scope, wanted?: Type): Value {
    const whole = reader.next();
    const inside = scope.inside();
    let subject: Value | undefined;
    if (reader.is("(")) {
      const head = reader.from(...reader.skipBrackets());
      readModifiers(head);
      if (head.takes("val")) {
        const name = head.name()?.text ?? "";
        if (head.takes(":")) this.typeText(readType(head), scope.home);
        head.takes("=");
        const { type } = this.expression(head, scope);
        inside.declare(name, type);
        subject = { type, path: name };
      } else subject = this.expression(head, scope);
    }
    if (!reader.is("{")) return {};
    const body = reader.from(...reader.skipBrackets());
    let result: Type | undefined;
    let hasElse = false;
    while (!body.isAtEnd) {
      const before = body.at;
      const branch = inside.inside();
      if (body.is("else") && body.peek(1).text === "->") {
        body.next();
        hasElse = true;
      } else this.conditions(body, subject, branch);
      body.takes("->");
      const type = this.valued(body, branch, wanted);
      if (type !== nothing) result ??= type;
      if (body.at === before) body.next();
    }
    if (subject && !hasElse) this.matchesAll(subject.type, whole);
    return { type: result };
  }

  private conditions(reader: Reader, subject: Value | undefined, scope: Scope): void {
    const narrowings: (readonly Narrowing[])[] = [];
    do {
      if (reader.is("->")) break;
      if (reader.is("is") || reader.is("!is")) {
        const isPositive = reader.next().text === "is";
        const found = this.checked(subject ?? {}, reader, scope);
        narrowings.push(isPositive ? found : []);
      } else if (reader.is("in") || reader.is("!in")) {
        reader.next();
        this.flush(this.unflushed(reader, scope), "matches");
        narrowings.push([]);
      } else {
        const value = this.unflushed(reader, scope);
        this.flush(value, "matches");
        // An object is a value of its own type.
        if (value.named) this.names(value.named, reader.peek(-1), "tells");
        narrowings.push(subject ? [] : (value.holds ?? []));
      }
    } while (reader.takes(","));
    if (narrowings.length === 1) for (const { path, type } of narrowings[0] ?? []) scope.narrow(path, type);
  }

  private tryCatch(reader: Reader, scope: Scope): Value {
    reader.next();
    const type = this.branch(reader, scope.inside());
    while (reader.is("catch") && reader.peek(1).text === "(") {
      reader.next();
      const head = reader.from(...reader.skipBrackets());
      readModifiers(head);
      const name = head.name()?.text ?? "";
      head.takes(":");
      const text = readType(head);
      this.typeText(text, scope.home, "tells");
      const inside = scope.inside();
      inside.declare(name, this.program.typeOf(text, scope.home));
      this.branch(reader, inside);
    }
    if (reader.takes("finally")) this.branch(reader, scope.inside());
    return { type };
  }

  private objectLiteral(reader: Reader, scope: Scope): Value {
    const found: Declarations = { classes: [], functions: [], properties: [], aliases: [], initial: [] };
    const { tokens } = reader;
    if (!readDeclaration(reader, found)) return {};
    const [text] = found.classes;
    if (!text) return {};
    this.class(text, scope.home, { tokens, around: scope.receivers });
    return { type: this.program.typeOf(text.supers[0], scope.home) };
  }

  private anonymous(reader: Reader, scope: Scope): Value {
    const found: Declarations = { classes: [], functions: [], properties: [], aliases: [], initial: [] };
    const { tokens } = reader;
    if (readDeclaration(reader, found)) for (const text of found.functions) this.function(text, scope, tokens);
    return {};
  }

  /** A lambda. Returns the type of its result. */
  protected lambda(reader: Reader, scope: Scope, { parameters, receiver }: LambdaGiven) {
    const body = reader.from(...reader.skipBrackets());
    const inside = scope.inside(receiver ? [receiver, ...scope.receivers] : scope.receivers);
    if (!this.lambdaParameters(body, inside, parameters) && !(parameters.length === 0 && scope.has("it")))
      inside.declare("it", parameters[0]);
    this.returning.push(undefined);
    const { type: result, read, held } = this.block(body, inside);
    this.returning.pop();
    return { type: { ...builtIn("Function"), function: { receiver, parameters, result } }, read, held };
  }

  protected lambdaParameters(reader: Reader, scope: Scope, given: readonly (Type | undefined)[]): boolean {
    const start = reader.at;
    let at = 0;
    const declare: (() => void)[] = [];
    while (!reader.isAtEnd && !reader.is("->")) {
      const type = given[at];
      if (reader.is("(")) {
        const range = reader.skipBrackets();
        declare.push(() => {
          this.takeApart(this.destructured(reader.from(...range), scope), type, { scope, isConstant: true });
        });
      } else {
        const name = reader.name();
        if (!name) break;
        const text = reader.takes(":") ? readType(reader) : undefined;
        declare.push(() => {
          this.typeText(text, scope.home);
          scope.declare(name.text, this.program.typeOf(text, scope.home) ?? type);
        });
      }
      at++;
      if (!reader.takes(",")) break;
    }
    if (!reader.takes("->")) {
      reader.at = start;
      return false;
    }
    for (const each of declare) each();
    return true;
  }

  protected override silent(): this {
    return new BodyScan(this.program, this.sdk, undefined, this.shared) as this;
  }
}

/** Whether an expression begins here, and does not end. */
function beginsExpression({ token }: Reader): boolean {
  return token.kind === "name"
    ? token.text !== "else"
    : token.kind !== "end" && !(token.kind === "symbol" && /^[)\]},]$|^->$|^\?:$/.test(token.text));
}
