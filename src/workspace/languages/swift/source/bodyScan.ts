import type { ClassText, Declarations, FunctionText, PropertyText } from "../../source/declared.js";
import type { Home, Type } from "../../source/knownProgram.js";
import { builtIn } from "../../source/library.js";
import { Reader } from "../../source/reader.js";
import { Scope } from "../../source/scope.js";
import type { Token } from "../../source/token.js";
import { type LambdaGiven, type Value, unit } from "../../source/values.js";
import { readDeclaration, readModifiers } from "./declarations.js";
import { ControlScan } from "./controlScan.js";
import { readEffects, readType } from "./readType.js";
import { itemOf } from "./standardLibrary.js";

/** The context of declarations: their file's tokens, and the types of `self`, innermost first. */
interface Around {
  readonly tokens: readonly Token[];
  readonly receivers: readonly Type[];
}

/** Scans the bodies of Swift source, with the known types of its expressions. */
export class BodyScan extends ControlScan {
  /** The scope of a file's statements outside of functions. */
  private script: Scope | undefined;

  /** Scans all declarations of a file. In a file with statements of its own, these are everything. */
  file(declared: Declarations, home: Home, tokens: readonly Token[]): void {
    const [script] = declared.initial;
    if (script) {
      // Variables of a script are declared in order, as in a function. Everything else is the same as in any file.
      this.script = new Scope(home, []);
      this.declarations({ ...declared, properties: [] }, home, { tokens, receivers: [] });
      this.block(new Reader(tokens, ...script), this.script);
      return;
    }
    this.declarations(declared, home, { tokens, receivers: [] });
  }

  private declarations(declared: Declarations, home: Home, around: Around): void {
    const { tokens, receivers } = around;
    for (const { type } of declared.aliases) this.typeText(type, home);
    for (const text of declared.properties) this.property(text, home, around);
    for (const text of declared.functions) this.function(text, new Scope(this.homeOf(text, home), receivers), tokens);
    for (const text of declared.classes) this.class(text, home, { tokens, receivers: [] });
  }

  /** Inside an extension, names have the same meaning as inside the type. */
  private homeOf(text: FunctionText | PropertyText, home: Home): Home {
    return text.isInside === true ? this.program.insideOf(text.receiver, home) : home;
  }

  private class(text: ClassText, home: Home, { tokens, receivers: around }: Around): void {
    const known = this.knownOf(text, home);
    const parameters = new Map([...home.parameters, ...text.typeParameters.map((each) => [each, undefined] as const)]);
    const inside: Home = { file: home.file, around: known ? [...home.around, known] : home.around, parameters };
    const own = known && builtIn(known.name, ...text.typeParameters.map(() => undefined));
    parameters.set("Self", own);
    const receivers = own ? [own, ...around] : around;
    for (const each of text.supers) this.typeText(each, home);
    for (const { parameters: held = [] } of text.entries) for (const { type } of held) this.typeText(type, inside);
    for (const each of text.properties) this.property(each, inside, { tokens, receivers });
    for (const range of text.initial) this.block(new Reader(tokens, ...range), new Scope(inside, receivers));
    for (const each of [...text.functions, ...(text.makers ?? [])])
      this.function(each, new Scope(inside, receivers), tokens);
    for (const { type } of text.aliases) this.typeText(type, inside);
    for (const each of text.classes) this.class(each, inside, { tokens, receivers: [] });
  }

  private property(text: PropertyText, outer: Home, { tokens, receivers: around }: Around): void {
    const home = this.homeOf(text, outer);
    this.typeText(text.receiver, outer);
    this.typeText(text.type, home);
    const own = this.program.typeOf(text.receiver, outer);
    const scope = new Scope(home, own ? [own, ...around] : around);
    const wanted = this.program.typeOf(text.type, home);
    if (text.initial) this.expression(new Reader(tokens, ...text.initial), scope, wanted);
    if (text.getter) this.body(new Reader(tokens, ...text.getter.range), scope.inside(), wanted);
    for (const range of text.observers ?? []) {
      const inside = scope.inside();
      for (const name of ["newValue", "oldValue"]) inside.declare(name, wanted);
      this.block(new Reader(tokens, ...range), inside);
    }
  }

  protected override function(text: FunctionText, outer: Scope, tokens: readonly Token[]): Type | undefined {
    const parameters = new Map([
      ...outer.home.parameters,
      ...text.typeParameters.map((each) => [each, this.program.typeOf(text.bounds?.get(each), outer.home)] as const),
    ]);
    const home: Home = { ...outer.home, parameters };
    for (const bound of text.bounds?.values() ?? []) this.typeText(bound, home);
    this.typeText(text.receiver, home);
    this.typeText(text.result, home);
    this.typeText(text.failure, home);
    const own = this.program.typeOf(text.receiver, home);
    if (own) parameters.set("Self", own);
    const scope = new Scope(home, own ? [own, ...outer.receivers] : outer.receivers, outer);
    for (const parameter of text.parameters) {
      this.typeText(parameter.type, home);
      const type = this.program.typeOf(parameter.type, home);
      if (parameter.initial) this.expression(new Reader(tokens, ...parameter.initial), scope, type);
      scope.declare(parameter.inner ?? parameter.name, type);
    }
    if (text.body) this.body(new Reader(tokens, ...text.body.range), scope, this.program.typeOf(text.result, home));
    return undefined;
  }

  /** The body of a function. A single expression is its result. */
  private body(reader: Reader, scope: Scope, result: Type | undefined): Value {
    this.returning.push(result);
    const value = this.withHead(false, () => this.block(reader, scope, result));
    this.returning.pop();
    return value;
  }

  /** Scans statements up to the end of the reader. Returns the value of the last one. */
  private block(reader: Reader, scope: Scope, wanted?: Type): Value {
    let last: Value = { type: unit };
    while (!reader.isAtEnd) {
      const before = reader.at;
      last = this.statement(reader, scope, wanted);
      if (reader.at === before) reader.next();
    }
    return last;
  }

  protected override statement(reader: Reader, scope: Scope, wanted: Type | undefined): Value {
    const before = reader.at;
    // A label: `outer: for …`
    if (
      reader.token.kind === "name" &&
      reader.peek(1).text === ":" &&
      /^(?:for|while|repeat|switch|do)$/.test(reader.peek(2).text)
    )
      reader.at += 2;
    readModifiers(reader);
    const { token } = reader;
    if (token.kind === "name" && token.isQuoted !== true)
      switch (token.text) {
        case "let":
        case "var":
          this.local(reader, scope);
          return { type: unit };
        case "func":
        case "class":
        case "struct":
        case "enum":
        case "actor":
        case "protocol":
        case "extension":
        case "typealias":
        case "import":
          reader.at = before;
          this.localDeclaration(reader, scope);
          return { type: unit };
        case "for":
          this.loop(reader, scope);
          return { type: unit };
        case "while": {
          reader.next();
          const inside = scope.inside();
          this.conditions(reader, inside, inside);
          this.braces(reader, inside);
          return { type: unit };
        }
        case "repeat":
          if (reader.peek(1).text !== "{") break;
          reader.next();
          this.braces(reader, scope.inside());
          if (reader.takes("while")) this.expression(reader, scope);
          return { type: unit };
        case "guard":
          reader.next();
          this.conditions(reader, scope, scope);
          if (reader.takes("else")) this.braces(reader, scope.inside());
          return { type: unit };
        case "defer":
          reader.next();
          this.braces(reader, scope.inside());
          return { type: unit };
      }
    const value = this.unflushed(reader, scope, wanted);
    const operator = reader.token;
    if (
      operator.kind === "symbol" &&
      /^(?:[-+*/%]|&[-+*]|\?\?|\|\||&&)?=$/.test(operator.text) &&
      !operator.startsLine
    ) {
      reader.next();
      this.expression(reader, scope, value.type);
      return { type: unit };
    }
    this.flush(value, "writes");
    if (this.isHandedOn(value.type, wanted)) this.passes(value);
    return value;
  }

  protected override braces(reader: Reader, scope: Scope, wanted?: Type): Value {
    if (!reader.is("{")) return {};
    const inner = reader.from(...reader.skipBrackets());
    return this.withHead(false, () => this.block(inner, scope, wanted));
  }

  private localDeclaration(reader: Reader, scope: Scope): void {
    const found: Declarations = { classes: [], functions: [], properties: [], aliases: [], initial: [] };
    if (!readDeclaration(reader, found) || scope === this.script) return;
    const outer = found.classes.length > 0 || found.functions.some(({ receiver }) => receiver) ? scope.home : undefined;
    if (outer) {
      this.declarations(found, outer, { tokens: reader.tokens, receivers: scope.receivers });
      return;
    }
    for (const text of found.functions) {
      scope.functions.set(text.name, text);
      this.function(text, scope, reader.tokens);
    }
  }

  /** `let a = 1, b: Int`, `let (a, b) = pair`, `async let a = …` */
  private local(reader: Reader, scope: Scope): void {
    const isConstant = reader.next().text === "let";
    do {
      if (reader.is("(")) {
        const names = reader.from(...reader.skipBrackets());
        const value = reader.takes("=") ? this.expression(reader, scope) : {};
        this.takeApart(names, value, { scope, isConstant });
        continue;
      }
      const name = reader.name()?.text ?? "";
      const text = reader.takes(":") ? readType(reader) : undefined;
      this.typeText(text, scope.home);
      const declared = this.program.typeOf(text, scope.home);
      let value: Value = {};
      if (reader.takes("=")) value = this.expression(reader, scope, declared);
      else if (reader.is("{")) {
        // A computed property.
        this.body(reader.from(...reader.skipBrackets()), scope.inside(), declared);
      }
      scope.declare(name, declared ?? value.type);
      if (isConstant && !text) this.holds(scope, name, value);
    } while (reader.takes(","));
  }

  private loop(reader: Reader, scope: Scope): void {
    reader.next();
    reader.takes("try");
    reader.takes("await");
    const inside = scope.inside();
    // The iterated value comes after the names.
    const start = reader.at;
    while (!reader.isAtEnd && !reader.is("in")) {
      if (reader.is("(") || reader.is("[")) reader.skipBrackets();
      else reader.next();
    }
    const pattern = reader.from(start, reader.at);
    reader.takes("in");
    const item = itemOf(this.withHead(true, () => this.expression(reader, scope)).type);
    if (pattern.takes("case")) this.pattern(pattern, { type: item }, inside);
    else if (pattern.is("("))
      this.takeApart(pattern.from(...pattern.skipBrackets()), { type: item }, { scope: inside, isConstant: false });
    else {
      pattern.takes("var");
      const name = pattern.name()?.text ?? "_";
      const text = pattern.takes(":") ? readType(pattern) : undefined;
      this.typeText(text, scope.home);
      inside.declare(name, this.program.typeOf(text, scope.home) ?? item);
    }
    if (reader.takes("where")) this.withHead(true, () => this.expression(reader, inside));
    this.braces(reader, inside);
  }

  /** A closure. Returns the type of its result. */
  protected override lambda(reader: Reader, scope: Scope, { parameters }: LambdaGiven) {
    const body = reader.from(...reader.skipBrackets());
    const inside = scope.inside();
    const declared = this.closureParameters(body, inside, parameters);
    if (!declared.isNamed)
      for (let at = 0; at < Math.max(2, parameters.length); at++) inside.declare(`$${String(at)}`, parameters[at]);
    // A single name for a pair has the value of both.
    const [only] = parameters;
    if (!declared.isNamed && parameters.length === 1 && only?.name === "Tuple" && usesSecond(body)) {
      inside.declare("$0", only.arguments[0]);
      inside.declare("$1", only.arguments[1]);
    }
    const { type: result, read, held } = this.body(body, inside, declared.result);
    const made = declared.result ?? result;
    return {
      type: { ...builtIn("Function"), function: { receiver: undefined, parameters, result: made } },
      read,
      held,
    };
  }

  /** `[weak self] (a, b: Int) -> String in` */
  private closureParameters(
    reader: Reader,
    scope: Scope,
    given: readonly (Type | undefined)[],
  ): { readonly isNamed: boolean; readonly result: Type | undefined } {
    const start = reader.at;
    while (reader.is("@")) reader.at += 2;
    if (reader.is("[")) reader.skipBrackets();
    const names: { readonly name: string; readonly text: ReturnType<typeof readType> }[] = [];
    const isBracketed = reader.is("(");
    const inner = isBracketed ? reader.from(...reader.skipBrackets()) : reader;
    while (!inner.isAtEnd && inner.token.kind === "name" && !inner.is("in")) {
      const name = inner.next().text;
      const own = (isBracketed ? inner.name()?.text : undefined) ?? name;
      names.push({ name: own, text: isBracketed && inner.takes(":") ? readType(inner) : undefined });
      if (!inner.takes(",")) break;
    }
    readEffects(reader);
    const text = reader.takes("->") ? readType(reader) : undefined;
    if (!reader.takes("in")) {
      reader.at = start;
      return { isNamed: false, result: undefined };
    }
    this.typeText(text, scope.home);
    const [only] = given;
    const isPair = given.length === 1 && names.length > 1 && only?.name === "Tuple";
    names.forEach(({ name, text: typed }, at) => {
      this.typeText(typed, scope.home);
      scope.declare(
        name.replace(/^\$(?=\D)/, ""),
        this.program.typeOf(typed, scope.home) ?? (isPair ? only.arguments[at] : given[at]),
      );
    });
    return { isNamed: names.length > 0 || isBracketed, result: this.program.typeOf(text, scope.home) };
  }

  protected override silent(): this {
    return new BodyScan(this.program, this.sdk, undefined, this.shared) as this;
  }
}

/** Whether a closure contains `$1`. */
function usesSecond(reader: Reader): boolean {
  for (let at = 0; reader.peek(at).kind !== "end"; at++) {
    const { kind, text, inside = [] } = reader.peek(at);
    if (kind === "name" && text === "$1") return true;
    if (inside.some((tokens) => tokens.some((each) => each.text === "$1"))) return true;
  }
  return false;
}
