import type { SourceUseKind } from "../../../../core/use/sourceUse.js";
import {
  readDeclaration,
  readModifiers,
  type ClassText,
  type Declarations,
  type FunctionText,
  type ParameterText,
  type PropertyText,
} from "./declarations.js";
import type { Home, KnownClass, KnownFunction, KnownProgram, Type } from "./knownProgram.js";
import { Reader } from "./reader.js";
import { Scope } from "./scope.js";
import type { SdkModel } from "./sdkModel.js";
import {
  builtIn,
  calledAlone,
  calledOn,
  delegated,
  isContainer,
  isPlain,
  itemOf,
  knownComponent,
  knownProperty,
  type KnownCall,
} from "./standardLibrary.js";
import type { Token } from "./tokens.js";
import { readType, readTypeArguments, type TypeText } from "./typeText.js";

/** Told of each place that depends on the SDK. */
export type Tell = (coordinate: string, kind: SourceUseKind, token: Token) => Told;

/** A place that was told of; what is done with the value is known later. */
export interface Told {
  kind: SourceUseKind;
}

/** What is known of the value of an expression. */
interface Value {
  readonly type?: Type | undefined;
  /** The expression names a class, and no value. */
  readonly named?: KnownClass;
  /** The call of the SDK that answers it. */
  readonly called?: Token;
  /** Members of the SDK whose value it is. */
  readonly read?: readonly Told[];
  /** It is a path of names that can be narrowed. */
  readonly path?: string;
  /** A constant of a choice, of which it is not said yet what is done with it. */
  readonly constant?: { readonly coordinate: string; readonly token: Token };
  /** What is known where it holds, and where it does not. */
  readonly holds?: readonly Narrowing[];
  readonly fails?: readonly Narrowing[];
}

interface Narrowing {
  readonly path: string;
  readonly type: Type;
}

/** An argument of a call. */
interface Given {
  readonly name: string | undefined;
  readonly token: Token;
  readonly type: Type | undefined;
  /** Members of the SDK whose value it is. */
  readonly read: readonly Told[];
  readonly isLambda: boolean;
}

const nothing = builtIn("Nothing");
const unit = builtIn("Unit");
const jumps = new Set(["return", "throw", "break", "continue"]);

/** Looks through the bodies of source, with what is known of the types of its expressions. */
export class BodyScan {
  /** Results of functions and properties without a declared type; undefined while they are looked for. */
  private static readonly deepest = 12;
  private readonly inferred: Map<object, Type | undefined>;

  constructor(
    private readonly program: KnownProgram,
    private readonly sdk: SdkModel,
    private readonly tell: Tell | undefined,
    private readonly shared: { readonly inferred: Map<object, Type | undefined>; depth: number } = {
      inferred: new Map(),
      depth: 0,
    },
  ) {
    this.inferred = shared.inferred;
  }

  /** Everything that is declared in a file or a class. */
  declarations(declared: Declarations, home: Home, tokens: readonly Token[], receivers: readonly Type[] = []): void {
    for (const { type } of declared.aliases) this.typeText(type, home);
    for (const text of declared.properties) this.property(text, home, tokens, receivers);
    for (const text of declared.functions) this.function(text, new Scope(home, receivers), tokens);
    for (const range of declared.initial) this.block(new Reader(tokens, ...range), new Scope(home, receivers));
    for (const text of declared.classes) this.class(text, home, tokens);
  }

  private class(text: ClassText, home: Home, tokens: readonly Token[], around: readonly Type[] = []): void {
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
    for (const range of text.superArguments) this.arguments(new Reader(tokens, ...range), constructor, []);
    for (const entry of text.entries)
      if (entry.arguments) this.arguments(new Reader(tokens, ...entry.arguments), scope, []);
    for (const property of text.properties) this.property(property, inside, tokens, receivers, constructor);
    for (const range of text.initial) this.block(new Reader(tokens, ...range), constructor.inside());
    for (const each of text.functions) this.function(each, new Scope(inside, receivers), tokens);
    for (const { type } of text.aliases) this.typeText(type, inside);
    for (const each of text.classes) this.class(each, inside, tokens);
    for (const each of text.companions) this.class(each, inside, tokens);
  }

  private knownOf(text: ClassText, { file, around }: Home): KnownClass | undefined {
    const prefix = around.at(-1)?.name ?? file.package;
    for (const name of [text.name, `Companion.${text.name}`]) {
      const found = this.program.classes.get(prefix === "" ? name : `${prefix}.${name}`);
      if (found?.text === text) return found;
    }
    return undefined;
  }

  private property(
    text: PropertyText,
    home: Home,
    tokens: readonly Token[],
    receivers: readonly Type[],
    scope = new Scope(home, receivers),
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

  private function(text: FunctionText, outer: Scope, tokens: readonly Token[]): Type | undefined {
    const parameters = new Map([
      ...outer.home.parameters,
      ...text.typeParameters.map((each) => [each, undefined] as const),
    ]);
    const home: Home = { ...outer.home, parameters };
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

  /** What functions around are declared to give. */
  private readonly returning: (Type | undefined)[] = [];

  /** A type that source names. */
  private typeText(text: TypeText | undefined, home: Home, kind: SourceUseKind = "names"): void {
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
    // A name of the SDK's own for a list or a map.
    if (whole !== undefined && last && !this.program.classes.has(whole) && whole.startsWith(`${this.sdk.namespace}.`))
      this.tell?.(whole.slice(this.sdk.namespace.length + 1), kind, last);
  }

  private classNamed(parts: readonly string[], home: Home): KnownClass | undefined {
    const name = this.program.classNamed(parts, home);
    return name === undefined ? undefined : this.program.classes.get(name);
  }

  private names(known: KnownClass, token: Token, kind: SourceUseKind): void {
    const coordinate = this.sdk.coordinateOf(known);
    if (coordinate === undefined) return;
    if (coordinate === this.sdk.connect) this.tell?.("connection", "calls", token);
    else this.tell?.(coordinate, kind, token);
    // A member of a union stands for the union too.
    for (const above of this.program.withSupers(known).slice(1)) {
      const union = this.sdk.coordinateOf(above);
      if (union !== undefined && kind === "matches") this.tell?.(union, kind, token);
    }
  }

  /** Statements up to the end of what is read; gives the type of the last one. */
  private block(reader: Reader, scope: Scope): Type | undefined {
    let last: Type | undefined = unit;
    while (!reader.isAtEnd) {
      const before = reader.at;
      last = this.statement(reader, scope);
      if (reader.at === before) reader.next();
    }
    return last;
  }

  private statement(reader: Reader, scope: Scope): Type | undefined {
    const before = reader.at;
    readModifiers(reader);
    if (reader.token.kind === "name")
      switch (reader.token.text) {
        case "val":
        case "var":
          this.local(reader, scope);
          return unit;
        case "fun":
          if (reader.peek(1).kind !== "name" && reader.peek(1).text !== "<") break;
          reader.at = before;
          this.localDeclaration(reader, scope);
          return unit;
        case "class":
        case "interface":
          reader.at = before;
          this.localDeclaration(reader, scope);
          return unit;
        case "for":
          this.loop(reader, scope);
          return unit;
        case "while":
          reader.next();
          this.branch(reader, this.conditioned(reader, scope));
          return unit;
        case "do": {
          reader.next();
          const inside = scope.inside();
          this.branch(reader, inside);
          if (reader.takes("while")) this.condition(reader, inside);
          return unit;
        }
      }
    const { type, path } = this.unflushed(reader, scope);
    const operator = reader.token.text;
    if (
      reader.token.kind === "symbol" &&
      ["=", "+=", "-=", "*=", "/="].includes(operator) &&
      !reader.token.startsLine
    ) {
      reader.next();
      const given = this.expression(reader, scope, type);
      // What is assigned is known better than what was declared.
      if (operator === "=" && path !== undefined && given.type && scope.has(path) && !type)
        scope.declare(path, given.type);
      return unit;
    }
    return type;
  }

  private localDeclaration(reader: Reader, scope: Scope): void {
    const found: Declarations = { classes: [], functions: [], properties: [], aliases: [], initial: [] };
    if (!readDeclaration(reader, found)) return;
    for (const text of found.functions) {
      scope.functions.set(text.name, text);
      this.function(text, scope, reader.tokens);
    }
    for (const text of found.classes) this.class(text, scope.home, reader.tokens, scope.receivers);
  }

  private local(reader: Reader, scope: Scope): void {
    reader.next();
    if (reader.is("(")) {
      const [from, to] = reader.skipBrackets();
      const names = this.destructured(reader.from(from, to), scope);
      const value = reader.takes("=") ? this.expression(reader, scope) : {};
      this.takeApart(names, value.type, scope);
      return;
    }
    const name = reader.name()?.text ?? "";
    const text = reader.takes(":") ? readType(reader) : undefined;
    this.typeText(text, scope.home);
    const declared = this.program.typeOf(text, scope.home);
    let type = declared;
    if (reader.is("by")) {
      reader.next();
      type = declared ?? delegated(this.expression(reader, scope).type);
    } else if (reader.takes("=")) {
      const value = this.expression(reader, scope, declared);
      type = declared ?? value.type;
      scope.declare(name, type);
      for (const { path, type: known } of value.fails ?? []) if (value.type === nothing) scope.narrow(path, known);
    }
    scope.declare(name, type);
  }

  /** Names in parentheses, with the types that they are declared with. */
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
    scope: Scope,
  ): void {
    const known = this.program.classOf(type);
    names.forEach(({ token, type: declared }, at) => {
      if (!token) return;
      const parameter = known?.text.isData === true ? known.text.parameters[at] : undefined;
      if (known && parameter && token.text !== "_") this.reads(known, parameter.name, token);
      const of =
        parameter && known && type ? this.memberType(parameter, known, type) : type && knownComponent(type, at);
      if (token.text !== "_") scope.declare(token.text, declared ?? of);
      if (!type && token.text !== "_") this.reachesAny(token);
    });
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
      this.takeApart(names, itemOf(this.expression(head, scope).type), inside);
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
    if (reader.is("{")) return this.block(reader.from(...reader.skipBrackets()), scope);
    return this.statement(reader, scope);
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

  /** An expression whose value is taken as it is. */
  private expression(reader: Reader, scope: Scope, wanted?: Type): Value {
    const value = this.unflushed(reader, scope, wanted);
    this.flush(value, "writes");
    if (this.isHandedOn(value.type, wanted)) this.passes(value);
    return value;
  }

  private passes({ read = [], called }: Value): void {
    for (const each of read) each.kind = "passes";
    if (called) this.tell?.(called.text, "passes", called);
  }

  /** Whether a value goes where a type of the SDK is wanted by its name. */
  private isHandedOn(type: Type | undefined, wanted: Type | undefined): boolean {
    if (!type || !wanted) return false;
    const known = this.program.classOf(wanted);
    if (known && known.isSdk && type.name === wanted.name) return true;
    return wanted.arguments.some((each, at) => this.isHandedOn(type.arguments[at], each));
  }

  private flush({ constant }: Value, kind: SourceUseKind): void {
    if (constant) this.tell?.(constant.coordinate, kind, constant.token);
  }

  private unflushed(reader: Reader, scope: Scope, wanted?: Type): Value {
    return this.binary(reader, scope, 1, wanted);
  }

  private binary(reader: Reader, scope: Scope, least: number, wanted?: Type): Value {
    let left = this.prefix(reader, scope, wanted);
    for (;;) {
      const { token } = reader;
      const level = levelOf(token, reader.peek(1));
      if (level === undefined || level < least) return left;
      reader.next();
      left = this.combined(left, token, reader, scope, level);
    }
  }

  private combined(left: Value, operator: Token, reader: Reader, scope: Scope, level: number): Value {
    const { text } = operator;
    switch (text) {
      case "is":
      case "!is": {
        const narrowing = this.checked(left, reader, scope);
        return text === "is"
          ? { type: builtIn("Boolean"), holds: narrowing }
          : { type: builtIn("Boolean"), fails: narrowing };
      }
      case "as":
      case "as?": {
        const type = readType(reader);
        this.typeText(type, scope.home);
        const to = this.program.typeOf(type, scope.home);
        const narrowing = left.path !== undefined && to && text === "as" ? [{ path: left.path, type: to }] : [];
        for (const { path, type: known } of narrowing) scope.narrow(path, known);
        return { type: to && { ...to, isNullable: text === "as?" } };
      }
      case "&&": {
        const inside = scope.inside();
        for (const { path, type } of left.holds ?? []) inside.narrow(path, type);
        const right = this.binary(reader, inside, level + 1);
        return { type: builtIn("Boolean"), holds: [...(left.holds ?? []), ...(right.holds ?? [])] };
      }
      case "||": {
        const inside = scope.inside();
        for (const { path, type } of left.fails ?? []) inside.narrow(path, type);
        const right = this.binary(reader, inside, level + 1);
        return { type: builtIn("Boolean"), fails: [...(left.fails ?? []), ...(right.fails ?? [])] };
      }
      case "?:": {
        this.flush(left, "writes");
        const right = this.binary(reader, scope, level + 1, left.type);
        this.flush(right, "writes");
        const read = [...(left.read ?? []), ...(right.read ?? [])];
        if (left.type) return { type: { ...left.type, isNullable: right.type?.isNullable === true }, read };
        return { type: right.type === nothing ? undefined : right.type, read };
      }
      case "==":
      case "!=":
      case "===":
      case "!==":
      case "in":
      case "!in": {
        const right = this.binary(reader, scope, level + 1);
        this.flush(left, "matches");
        this.flush(right, "matches");
        return { type: builtIn("Boolean") };
      }
      default: {
        const right = this.binary(reader, scope, level + 1);
        this.flush(left, "writes");
        this.flush(right, "writes");
        if (text === "to") return { type: builtIn("Pair", left.type, right.type) };
        if (["<", ">", "<=", ">="].includes(text)) return { type: builtIn("Boolean") };
        if (operator.kind === "name") return this.infix(left, operator, right, scope);
        return { type: text === ".." ? builtIn("List", left.type) : (left.type ?? right.type) };
      }
    }
  }

  private infix(left: Value, operator: Token, right: Value, scope: Scope): Value {
    const found = this.functionOn(left.type, operator.text, scope);
    if (found) return { type: this.resultOf(found, left.type) };
    return { type: calledOn(left.type, operator.text)?.result(right.type) };
  }

  /** What stands behind `is`: what the value is then. */
  private checked(value: Value, reader: Reader, scope: Scope): Narrowing[] {
    const text = readType(reader);
    this.typeText(text, scope.home, "matches");
    const type = this.program.typeOf(text, scope.home);
    return value.path !== undefined && type ? [{ path: value.path, type: this.withArguments(type, value.type) }] : [];
  }

  /** `is Outcome.Success` of an `Outcome<Berth, …>` holds a berth too. */
  private withArguments(type: Type, of: Type | undefined): Type {
    if (type.arguments.length > 0 || !of) return type;
    const [narrow, wide] = [this.program.classOf(type), this.program.classOf(of)];
    if (!narrow || !wide) return isContainer(of) && type.name !== of.name ? { ...type, arguments: of.arguments } : type;
    const known = new Map(wide.text.typeParameters.map((name, at) => [name, of.arguments[at]]));
    return { ...type, arguments: narrow.text.typeParameters.map((name) => known.get(name)) };
  }

  private prefix(reader: Reader, scope: Scope, wanted?: Type): Value {
    const { token } = reader;
    if (reader.takes("!")) {
      const { holds, fails } = this.prefix(reader, scope);
      return { type: builtIn("Boolean"), ...(fails ? { holds: fails } : {}), ...(holds ? { fails: holds } : {}) };
    }
    if (token.kind === "symbol" && ["-", "+", "++", "--", "*"].includes(token.text)) {
      reader.next();
      return { type: this.prefix(reader, scope).type };
    }
    readModifiersOfExpression(reader);
    // A label: `outer@ for (…)`.
    if (reader.token.kind === "name" && reader.peek(1).text === "@" && reader.peek(1).offset === reader.token.end)
      reader.at += 2;
    return this.postfix(reader, scope, wanted);
  }

  private postfix(reader: Reader, scope: Scope, wanted?: Type): Value {
    let value = this.primary(reader, scope, wanted);
    for (;;) {
      const { token } = reader;
      if (token.kind !== "symbol") return value;
      if (token.text === "." || token.text === "?.") {
        reader.next();
        value = this.member(value, reader, scope, token.text === "?.");
      } else if (token.text === "::") {
        reader.next();
        value = this.reference(value, reader, scope);
      } else if (token.text === "!!") {
        reader.next();
        value = { ...value, type: value.type && { ...value.type, isNullable: false } };
      } else if ((token.text === "++" || token.text === "--") && !token.startsLine) reader.next();
      else if (token.text === "[" && !token.startsLine) {
        const given = this.arguments(reader.from(...reader.skipBrackets()), scope, []);
        value = { type: this.indexed(value.type, given) };
      } else if (token.text === "(" && !token.startsLine) {
        const given = value.type?.function?.parameters ?? [];
        this.arguments(reader.from(...reader.skipBrackets()), scope, given);
        value = { type: value.type?.function?.result };
      } else return value;
    }
  }

  private indexed(type: Type | undefined, _given: readonly Given[]): Type | undefined {
    if (!type) return undefined;
    if (type.name.endsWith("Map")) return type.arguments[1] && { ...type.arguments[1], isNullable: true };
    return itemOf(type);
  }

  private primary(reader: Reader, scope: Scope, wanted?: Type): Value {
    const { token } = reader;
    switch (token.kind) {
      case "text": {
        reader.next();
        for (const inside of token.inside ?? []) {
          const { read = [] } = this.expression(new Reader(inside), scope);
          for (const each of read) each.kind = "shows";
        }
        return { type: builtIn("String") };
      }
      case "number":
        reader.next();
        return { type: builtIn(/[.eE]/.test(token.text) && !token.text.startsWith("0x") ? "Double" : "Int") };
      case "symbol":
        if (token.text === "(") {
          const inner = reader.from(...reader.skipBrackets());
          return this.unflushed(inner, scope, wanted);
        }
        if (token.text === "{")
          return {
            type: this.lambda(reader, scope, wanted?.function?.parameters ?? [], wanted?.function?.receiver).type,
          };
        if (token.text === "[") {
          this.arguments(reader.from(...reader.skipBrackets()), scope, []);
          return {};
        }
        if (token.text === "::") {
          reader.next();
          return this.reference({}, reader, scope);
        }
        return {};
      case "name":
        return this.keyword(reader, scope, wanted) ?? this.name(reader, scope, undefined, wanted);
      default:
        return {};
    }
  }

  private keyword(reader: Reader, scope: Scope, wanted?: Type): Value | undefined {
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
        return {};
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

  /** A branch that gives a value. */
  private valued(reader: Reader, scope: Scope, wanted?: Type): Type | undefined {
    if (reader.is("{")) return this.block(reader.from(...reader.skipBrackets()), scope);
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
        // An object stands for its own type.
        if (value.named) this.names(value.named, reader.peek(-1), "matches");
        narrowings.push(subject ? [] : (value.holds ?? []));
      }
    } while (reader.takes(","));
    if (narrowings.length === 1) for (const { path, type } of narrowings[0] ?? []) scope.narrow(path, type);
  }

  /** A match without a rest has to name whatever comes to be. */
  private matchesAll(type: Type | undefined, token: Token): void {
    const known = this.program.classOf(type);
    const coordinate = known && this.sdk.coordinateOf(known);
    if (coordinate !== undefined) this.tell?.(`${coordinate}!`, "matches", token);
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
      this.typeText(text, scope.home, "matches");
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
    this.class(text, scope.home, tokens, scope.receivers);
    return { type: this.program.typeOf(text.supers[0], scope.home) };
  }

  private anonymous(reader: Reader, scope: Scope): Value {
    const found: Declarations = { classes: [], functions: [], properties: [], aliases: [], initial: [] };
    const { tokens } = reader;
    if (readDeclaration(reader, found)) for (const text of found.functions) this.function(text, scope, tokens);
    return {};
  }

  /** A lambda; gives the type of what it makes. */
  private lambda(
    reader: Reader,
    scope: Scope,
    parameters: readonly (Type | undefined)[],
    receiver: Type | undefined,
  ): { readonly type: Type; readonly made: Type | undefined } {
    const body = reader.from(...reader.skipBrackets());
    const inside = scope.inside(receiver ? [receiver, ...scope.receivers] : scope.receivers);
    if (!this.lambdaParameters(body, inside, parameters) && !(parameters.length === 0 && scope.has("it")))
      inside.declare("it", parameters[0]);
    this.returning.push(undefined);
    const made = this.block(body, inside);
    this.returning.pop();
    return { type: { ...builtIn("Function"), function: { receiver, parameters, result: made } }, made };
  }

  private lambdaParameters(reader: Reader, scope: Scope, given: readonly (Type | undefined)[]): boolean {
    const start = reader.at;
    let at = 0;
    const declare: (() => void)[] = [];
    while (!reader.isAtEnd && !reader.is("->")) {
      const type = given[at];
      if (reader.is("(")) {
        const range = reader.skipBrackets();
        declare.push(() => {
          this.takeApart(this.destructured(reader.from(...range), scope), type, scope);
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

  /** `::name`, `Berth::note`, `harbour::getBerth`. */
  private reference(of: Value, reader: Reader, scope: Scope): Value {
    const token = reader.name();
    if (!token) return {};
    if (token.text === "class") return { type: builtIn("KClass", of.named && builtIn(of.named.name)) };
    const type = of.named ? builtIn(of.named.name) : of.type;
    const known = this.program.classOf(type);
    const property = known && this.propertyOf(known, token.text);
    if (known && property && type) {
      this.reads(property.owner, token.text, token);
      const result = this.memberType(property.text, property.owner, type);
      return { type: { ...builtIn("Function"), function: { receiver: undefined, parameters: [type], result } } };
    }
    const alone = !type && this.classNamed([token.text], scope.home);
    if (alone) {
      this.builds(alone, undefined, token);
      return {
        type: {
          ...builtIn("Function"),
          function: { receiver: undefined, parameters: [], result: builtIn(alone.name) },
        },
      };
    }
    const found = type ? this.functionOn(type, token.text, scope) : this.functionAlone(token.text, scope);
    if (!found) return {};
    if (this.sdk.isCall(found)) this.tell?.(found.text.name, "calls", token);
    const parameters = found.text.parameters.map((each) => this.program.typeOf(each.type, found.home));
    return {
      type: {
        ...builtIn("Function"),
        function: { receiver: undefined, parameters, result: this.resultOf(found, type) },
      },
    };
  }

  /** A name that begins an expression. */
  private name(reader: Reader, scope: Scope, _receiver: undefined, wanted?: Type): Value {
    const token = reader.next();
    const typeArguments = this.typeArguments(reader, scope);
    if (this.isCalled(reader)) return this.callAlone(token, typeArguments, reader, scope, wanted);
    const { text } = token;
    const narrowed = scope.narrowedType(text);
    if (scope.has(text)) return { type: narrowed ?? scope.variable(text), path: text };
    for (const receiver of scope.receivers) {
      const known = this.program.classOf(receiver);
      const property = known && this.propertyOf(known, text);
      if (!property) continue;
      const read = this.reads(property.owner, text, token);
      return { type: narrowed ?? this.memberType(property.text, property.owner, receiver), path: text, ...read };
    }
    const property = this.program.properties
      .get(text)
      ?.find(({ home }) => this.program.isSeen(home.file, text, scope.home.file));
    if (property) return { type: this.typeOfProperty(property.text, property.home), path: text };
    const known = this.classNamed([text], scope.home);
    if (known) {
      this.names(known, token, "names");
      return { named: known, ...(known.text.kind === "object" ? { type: builtIn(known.name) } : {}) };
    }
    return this.constantAlone(token, scope) ?? {};
  }

  /** A constant that is imported by its own name, or stands in the class that is read. */
  private constantAlone(token: Token, { home }: Scope): Value | undefined {
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

  private constantOf(owner: KnownClass, token: Token): Value | undefined {
    const coordinate = this.sdk.coordinateOf(owner);
    const value = coordinate === undefined ? undefined : this.sdk.constant(coordinate, token.text);
    if (coordinate !== undefined && value !== undefined)
      return { type: builtIn(owner.name), constant: { coordinate: `${coordinate}.${value}`, token } };
    const isEntry = owner.text.entries.some((each) => each.token.text === token.text);
    return isEntry ? { type: builtIn(owner.name) } : undefined;
  }

  private typeArguments(reader: Reader, scope: Scope): readonly (Type | undefined)[] {
    if (!reader.is("<")) return [];
    const before = reader.at;
    const texts = readTypeArguments(reader);
    if (!texts || !/^[({).,]$|^\?\.$|^::$|^$/.test(reader.token.text) || reader.token.kind === "text") {
      reader.at = before;
      return [];
    }
    for (const text of texts) this.typeText(text, scope.home);
    return texts.map((text) => this.program.typeOf(text, scope.home));
  }

  private isCalled(reader: Reader): boolean {
    const { token } = reader;
    return (
      token.kind === "symbol" &&
      (token.text === "(" || token.text === "{") &&
      !token.startsLine &&
      !this.isBraceElsewhere(reader)
    );
  }

  /** `if (x) name { … }` calls; `when (x) { … }` and loops are read before they come here. */
  private isBraceElsewhere(_reader: Reader): boolean {
    return false;
  }

  private member(of: Value, reader: Reader, scope: Scope, isSafe: boolean): Value {
    const token = reader.name();
    if (!token) return {};
    const { text } = token;
    const typeArguments = this.typeArguments(reader, scope);
    if (this.isCalled(reader)) {
      const called = this.callOn(of, token, typeArguments, reader, scope);
      return isSafe && called.type ? { type: { ...called.type, isNullable: true } } : called;
    }
    if (of.named) {
      const nested = this.classNamed([...of.named.name.split("."), text], { ...scope.home, around: [] });
      if (nested) {
        this.names(nested, token, "names");
        return { named: nested, ...(nested.text.kind === "object" ? { type: builtIn(nested.name) } : {}) };
      }
      const constant = this.constantOf(of.named, token);
      if (constant) return constant;
      if (text === "Companion") return of;
      if (text === "entries") return { type: builtIn("List", builtIn(of.named.name)) };
      const object = this.propertyOf(of.named.text.kind === "object" ? of.named : this.companionOf(of.named), text);
      return object ? { type: this.memberType(object.text, object.owner, builtIn(object.owner.name)) } : {};
    }
    const path = of.path === undefined ? undefined : `${of.path}.${text}`;
    const narrowed = path === undefined ? undefined : scope.narrowedType(path);
    const wholeName = this.packageMember(of, token, scope);
    if (wholeName) return wholeName;
    if (!of.type) {
      this.reachesAny(token);
      return path === undefined ? {} : { type: narrowed, path };
    }
    const known = this.program.classOf(of.type);
    const property = known && this.propertyOf(known, text);
    let type: Type | undefined;
    let read: Pick<Value, "read"> = {};
    if (property) {
      read = this.reads(property.owner, text, token);
      type = this.memberType(property.text, property.owner, of.type);
    } else {
      const extension = this.program.properties
        .get(text)
        ?.find(
          ({ text: each, home }) =>
            "receiver" in each && each.receiver && this.fits(of.type, this.program.typeOf(each.receiver, home)),
        );
      type = extension ? this.typeOfProperty(extension.text, extension.home) : knownProperty(of.type, text);
    }
    return {
      type: narrowed ?? (type && isSafe ? { ...type, isNullable: true } : type),
      ...read,
      ...(path === undefined ? {} : { path }),
    };
  }

  /** `com.ostrel.harbour.berths.Berth`: a class by its whole name. */
  private packageMember(of: Value, token: Token, scope: Scope): Value | undefined {
    if (of.type || of.path === undefined || scope.has(of.path.split(".")[0] ?? "")) return undefined;
    const known = this.program.classes.get(`${of.path}.${token.text}`);
    if (!known)
      return this.program.isPackage(`${of.path}.${token.text}`) ? { path: `${of.path}.${token.text}` } : undefined;
    this.names(known, token, "names");
    return { named: known };
  }

  private companionOf(known: KnownClass): KnownClass {
    const [companion] = known.text.companions;
    return (companion && this.program.classes.get(`${known.name}.Companion.${companion.name}`)) ?? known;
  }

  private propertyOf(
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

  private memberType(text: PropertyText | ParameterText, owner: KnownClass, of: Type): Type | undefined {
    const given = this.program.classOf(of) === owner ? of.arguments : [];
    const parameters = new Map(owner.text.typeParameters.map((name, at) => [name, given[at]] as const));
    return this.typeOfProperty(text, {
      file: owner.home.file,
      around: [...owner.home.around, owner],
      parameters: new Map([...owner.home.parameters, ...parameters]),
    });
  }

  private typeOfProperty(text: PropertyText | ParameterText, home: Home): Type | undefined {
    if (text.type) return this.program.typeOf(text.type, home);
    if (!("isDelegated" in text)) return undefined;
    return this.inferredOnce(text, (silent) => {
      const { tokens } = home.file;
      const receivers = home.around.map((each) => builtIn(each.name)).reverse();
      const scope = new Scope(home, receivers);
      if (text.initial) {
        const { type } = silent.expression(new Reader(tokens, ...text.initial), scope);
        return text.isDelegated ? delegated(type) : type;
      }
      return text.getter?.isExpression === true
        ? silent.expression(new Reader(tokens, ...text.getter.range), scope).type
        : undefined;
    });
  }

  private inferredOnce(key: object, infer: (silent: BodyScan) => Type | undefined): Type | undefined {
    if (this.inferred.has(key)) return this.inferred.get(key);
    if (this.shared.depth > BodyScan.deepest) return undefined;
    this.inferred.set(key, undefined);
    this.shared.depth++;
    const type = infer(new BodyScan(this.program, this.sdk, undefined, this.shared));
    this.shared.depth--;
    this.inferred.set(key, type);
    return type;
  }

  private resultOf({ text, home }: KnownFunction, receiver: Type | undefined): Type | undefined {
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

  /** What the type parameters of a function stand for, by the value that it is called on. */
  private bind(
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

  private reads(known: KnownClass, property: string, token: Token): Pick<Value, "read"> {
    const coordinate = this.sdk.coordinateOf(known);
    if (coordinate === undefined) return {};
    const told = [this.tell?.(`${coordinate}.${this.sdk.member(coordinate, property)}`, "reads", token)];
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

  /** A member of something of which nothing is known: it may be any record of the SDK that has such a member. */
  private reachesAny({ text, ...token }: Token): void {
    if (!this.tell) return;
    for (const known of this.program.classes.values()) {
      const coordinate = this.sdk.coordinateOf(known);
      if (coordinate === undefined || !known.text.parameters.some((each) => each.isProperty && each.name === text))
        continue;
      this.tell(`${coordinate}.*`, "reaches", { text, ...token });
    }
  }

  private functionAlone(name: string, scope: Scope): KnownFunction | undefined {
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

  /** A member function, or one from outside that is called on such a value. */
  private functionOn(type: Type | undefined, name: string, scope: Scope): KnownFunction | undefined {
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
    // A call of the SDK that is imported by its name can be nothing else, whatever is known of the connection.
    return type && (known ?? isPlain(type)) ? undefined : seen.find((each) => this.sdk.isCall(each));
  }

  private fits(type: Type | undefined, wanted: Type | undefined): boolean {
    if (!type) return false;
    if (!wanted || wanted.name === "Any") return true;
    if (type.name === wanted.name) return true;
    const known = this.program.classOf(type);
    if (known) return this.program.withSupers(known).some((each) => each.name === wanted.name);
    return isContainer(type) && isContainer(wanted) && ["Iterable", "Collection"].includes(wanted.name);
  }

  private callAlone(
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

  private callOn(
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

  private called(found: KnownFunction, receiver: Type | undefined, token: Token, reader: Reader, scope: Scope): Value {
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

  private sdkCall({ text }: KnownFunction, given: readonly Given[], token: Token): void {
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

  private constructed(known: KnownClass, token: Token, reader: Reader, scope: Scope, wanted?: Type): Value {
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
  private builds(known: KnownClass, given: readonly Given[] | undefined, token: Token): void {
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

  private copied(known: KnownClass, type: Type, reader: Reader, scope: Scope): Value {
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
  private calledKnown(of: (first: Type | undefined) => KnownCall | undefined, reader: Reader, scope: Scope): Value {
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
  private callArguments(
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

  private arguments(
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

const levels: Readonly<Record<string, number>> = {
  "||": 1,
  "&&": 2,
  "==": 3,
  "!=": 3,
  "===": 3,
  "!==": 3,
  "<": 4,
  ">": 4,
  "<=": 4,
  ">=": 4,
  in: 5,
  "!in": 5,
  is: 5,
  "!is": 5,
  "?:": 6,
  "..": 8,
  "+": 9,
  "-": 9,
  "*": 10,
  "/": 10,
  "%": 10,
  as: 11,
  "as?": 11,
};

/** How tightly an operator binds (Kotlin grammar, precedence); undefined for what is none. */
function levelOf({ kind, text, startsLine }: Token, next: Token): number | undefined {
  if (kind === "symbol" || text === "in" || text === "is" || text === "as") {
    if (startsLine && !["?:", "&&", "||", "as", "as?"].includes(text)) return undefined;
    return levels[text];
  }
  // A name between two values on one line is a function of its own.
  const isInfix =
    kind === "name" &&
    !startsLine &&
    text !== "else" &&
    !next.startsLine &&
    (next.kind !== "symbol" || /^[({!-]$|^::$/.test(next.text));
  return isInfix && next.kind !== "end" && !/^(?:is|in|as|by|catch|finally|while)$/.test(text) ? 7 : undefined;
}

function readModifiersOfExpression(reader: Reader): void {
  while (reader.is("@") && reader.peek(1).kind === "name") {
    reader.at += 2;
    if (reader.is("(")) reader.skipBrackets();
  }
}

function beginsExpression({ token }: Reader): boolean {
  return token.kind === "name"
    ? token.text !== "else"
    : token.kind !== "end" && !(token.kind === "symbol" && /^[)\]},]$|^->$|^\?:$/.test(token.text));
}
