import type { Type } from "../../source/knownProgram.js";
import { builtIn } from "../../source/library.js";
import { Reader } from "../../source/reader.js";
import type { Scope } from "../../source/scope.js";
import type { Token } from "../../source/token.js";
import { nothing, unit, type Value } from "../../source/values.js";
import { readModifiers } from "./declarations.js";
import { unwrapped, whole } from "./memberScan.js";
import { PatternScan } from "./patternScan.js";
import { readEffects, readType } from "./readType.js";

const jumps = new Set(["return", "throw", "break", "continue", "fallthrough"]);

/** Scans control flow: conditions, matches, and error handlers. */
export abstract class ControlScan extends PatternScan {
  /** The declared return types of the functions around. */
  protected readonly returning: (Type | undefined)[] = [];

  protected abstract statement(reader: Reader, scope: Scope, wanted: Type | undefined): Value;

  /** A block in braces. */
  protected abstract braces(reader: Reader, scope: Scope, wanted?: Type): Value;

  /**
   * The conditions between `if`, `guard` or `while` and its block.
   *
   * @param into the scope for the names that conditions declare
   */
  protected conditions(reader: Reader, scope: Scope, into: Scope): void {
    this.withHead(true, () => {
      do {
        if (reader.is("let") || reader.is("var")) this.binding(reader, scope, into);
        else if (reader.is("case")) {
          reader.next();
          this.matched(reader, scope, into);
        } else this.expression(reader, scope, builtIn("Bool"));
      } while (reader.takes(","));
    });
  }

  /** `let note = berth.note`, `let note` */
  protected binding(reader: Reader, scope: Scope, into: Scope): void {
    reader.next();
    const token = reader.name();
    const text = reader.takes(":") ? readType(reader) : undefined;
    this.typeText(text, scope.home);
    if (!token) return;
    let value: Value;
    if (reader.takes("=")) value = this.expression(reader, scope);
    else {
      const again = new Reader([token, { ...token, kind: "end", text: "" }]);
      value = this.expression(again, scope);
    }
    unwrapped(value);
    if (token.text === "self") return;
    into.declare(token.text, this.program.typeOf(text, scope.home) ?? whole(value.type));
    this.holds(into, token.text, value);
  }

  /** `case .sail(let vessel) = vessel` */
  protected matched(reader: Reader, scope: Scope, into: Scope): void {
    const start = reader.at;
    while (!reader.isAtEnd && !reader.is("=") && !reader.is("{")) {
      if (reader.is("(") || reader.is("[")) reader.skipBrackets();
      else reader.next();
    }
    const pattern = reader.from(start, reader.at);
    const value = reader.takes("=") ? this.expression(reader, scope) : {};
    this.pattern(pattern, value, into);
  }

  protected override keyword(reader: Reader, scope: Scope, wanted?: Type): Value | undefined {
    const { text, isQuoted } = reader.token;
    if (isQuoted === true) return undefined;
    switch (text) {
      case "if":
        return this.ifElse(reader, scope, wanted);
      case "switch":
        return this.switch(reader, scope, wanted);
      case "do":
        return reader.peek(1).text === "{" || reader.peek(1).text === "throws"
          ? this.doCatch(reader, scope, wanted)
          : undefined;
      case "true":
      case "false":
        reader.next();
        return { type: builtIn("Bool") };
      case "nil":
        reader.next();
        return {};
      case "self":
        reader.next();
        return { type: scope.has("self") ? scope.variable("self") : scope.receivers[0], path: "self" };
      case "Self": {
        reader.next();
        const known = this.program.classOf(scope.receivers[0]);
        return known ? { named: known } : {};
      }
      case "super":
        reader.next();
        return { type: this.superOf(scope) };
      default:
        if (!jumps.has(text)) return undefined;
        reader.next();
        if (text === "throw") this.expression(reader, scope);
        else if (text === "return" && !reader.token.startsLine && !reader.isAtEnd && !reader.is("}"))
          this.expression(reader, scope, this.returning.at(-1));
        else if (text === "break" || text === "continue") if (!reader.token.startsLine) reader.name();
        return { type: nothing };
    }
  }

  protected ifElse(reader: Reader, scope: Scope, wanted?: Type): Value {
    reader.next();
    const inside = scope.inside();
    this.conditions(reader, inside, inside);
    const first = this.braces(reader, inside, wanted).type;
    if (!reader.takes("else")) return { type: unit };
    const second = reader.is("if")
      ? this.ifElse(reader, scope, wanted).type
      : this.braces(reader, scope.inside(), wanted).type;
    return { type: first === nothing || !first ? second : first };
  }

  protected switch(reader: Reader, scope: Scope, wanted?: Type): Value {
    const word = reader.next();
    const subject = this.withHead(true, () => this.unflushed(reader, scope));
    if (!reader.is("{")) return {};
    const body = reader.from(...reader.skipBrackets());
    let result: Type | undefined;
    let hasDefault = false;
    while (!body.isAtEnd) {
      const before = body.at;
      readModifiers(body);
      const inside = scope.inside();
      if (body.takes("default")) hasDefault = true;
      else if (body.takes("case"))
        do {
          // `case let value:` accepts every value.
          const isAll =
            (body.is("let") || body.is("var") || body.is("_")) &&
            /^[:,]$|^_$/.test(body.is("_") ? body.peek(1).text : body.peek(2).text);
          if (isAll) hasDefault = true;
          this.withHead(true, () => {
            this.pattern(body, subject, inside);
          });
          if (body.takes("where")) this.withHead(true, () => this.expression(body, inside));
        } while (body.takes(","));
      body.takes(":");
      const type = this.branch(body, inside, wanted);
      if (type !== nothing) result ??= type;
      if (body.at === before) body.next();
    }
    if (!hasDefault) this.matchesAllIn(subject.type, word);
    return { type: result };
  }

  /** A match of a tuple must list all values of each part. */
  protected matchesAllIn(type: Type | undefined, token: Token): void {
    if (type?.name === "Tuple") for (const each of type.arguments) this.matchesAll(each, token);
    else this.matchesAll(type, token);
  }

  /** Statements up to the next case. */
  protected branch(reader: Reader, scope: Scope, wanted: Type | undefined): Type | undefined {
    let last: Type | undefined = unit;
    while (!reader.isAtEnd && !this.isNextCase(reader)) {
      const before = reader.at;
      last = this.withHead(false, () => this.statement(reader, scope, wanted)).type;
      if (reader.at === before) reader.next();
    }
    return last;
  }

  protected isNextCase(reader: Reader): boolean {
    const { token } = reader;
    if (reader.is("@") && reader.peek(1).text === "unknown") return true;
    return token.startsLine && (reader.is("case") || (reader.is("default") && reader.peek(1).text === ":"));
  }

  protected doCatch(reader: Reader, scope: Scope, wanted: Type | undefined): Value {
    reader.next();
    const { failure } = readEffects(reader);
    this.typeText(failure, scope.home);
    const thrown: (Type | undefined)[] = [];
    this.thrown.push(thrown);
    const { type } = this.braces(reader, scope.inside(), wanted);
    this.thrown.pop();
    const names = new Set(thrown.map((each) => each?.name));
    const error = failure ? this.program.typeOf(failure, scope.home) : names.size === 1 ? thrown[0] : undefined;
    while (reader.is("catch")) {
      reader.next();
      const inside = scope.inside();
      inside.declare("error", error);
      if (!reader.is("{"))
        do {
          this.withHead(true, () => {
            this.pattern(reader, { type: error }, inside);
          });
          if (reader.takes("where")) this.withHead(true, () => this.expression(reader, inside));
        } while (reader.takes(","));
      this.braces(reader, inside, wanted);
    }
    return { type };
  }
}
