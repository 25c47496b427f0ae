import type { Type } from "../../source/knownProgram.js";
import type { Reader } from "../../source/reader.js";
import type { Scope } from "../../source/scope.js";
import type { Token } from "../../source/token.js";
import type { Value } from "../../source/values.js";
import { ExpressionScan } from "./expressionScan.js";
import { unwrapped, whole } from "./memberScan.js";
import { readType } from "./readType.js";

/** The scope for the names of a pattern, and whether all names in it are new. */
interface Binding {
  readonly scope: Scope;
  readonly areNew: boolean;
}

/** Scans patterns in Swift, and the variables that they declare (The Swift Programming Language, Patterns). */
export abstract class PatternScan extends ExpressionScan {
  /** A variable has the value of SDK members, so its uses are uses of those members. */
  protected holds(scope: Scope, name: string, { read = [], computed = [] }: Pick<Value, "read" | "computed">): void {
    if (name === "_" || read.length + computed.length === 0) return;
    const holder = { read, computed, places: [] };
    scope.hold(name, holder);
    this.shared.holders.push(holder);
  }

  /** The names of a tuple's parts, in parentheses. */
  protected takeApart(
    names: Reader,
    value: Value,
    { scope, isConstant }: { readonly scope: Scope; readonly isConstant: boolean },
  ): void {
    for (let at = 0; !names.isAtEnd; at++) {
      const before = names.at;
      if (names.token.kind === "name" && names.peek(1).text === ":") names.at += 2;
      names.takes("let");
      names.takes("var");
      if (names.is("(")) {
        const type = value.type?.arguments[at];
        this.takeApart(names.from(...names.skipBrackets()), { type }, { scope, isConstant });
      } else {
        const name = names.name()?.text;
        if (name !== undefined && name !== "_") {
          scope.declare(name, value.type?.arguments[at]);
          if (isConstant) this.holds(scope, name, { read: value.parts?.[at] });
        }
      }
      if (!names.takes(",") && names.at === before) names.next();
    }
  }

  /** A pattern for a value (The Swift Programming Language, Patterns). */
  protected pattern(reader: Reader, value: Value, scope: Scope): void {
    if (reader.takes("let") || reader.takes("var")) {
      if (reader.token.kind === "name" && !/^[.(]$/.test(reader.peek(1).text)) this.bound(reader, value, scope);
      else this.boundCase(reader, value, scope);
      return;
    }
    if (reader.is("_")) {
      reader.next();
      return;
    }
    if (reader.is("is")) {
      reader.next();
      this.typeText(readType(reader), scope.home, "tells");
      return;
    }
    if (reader.is("(")) {
      const inner = reader.from(...reader.skipBrackets());
      for (let at = 0; !inner.isAtEnd; at++) {
        const before = inner.at;
        if (inner.token.kind === "name" && inner.peek(1).text === ":") inner.at += 2;
        this.pattern(inner, { type: value.type?.arguments[at], read: value.parts?.[at] }, scope);
        if (!inner.takes(",") && inner.at === before) inner.next();
      }
      return;
    }
    if (this.casePattern(reader, value, { scope, areNew: false })) return;
    const found = this.withHead(true, () => this.unflushed(reader, scope, whole(value.type)));
    this.flush(found, "matches");
  }

  /** `let vessel`, `let note?`, `let failure as Failure` */
  protected bound(reader: Reader, value: Value, scope: Scope): void {
    const name = reader.next().text;
    let { type } = value;
    if (reader.takes("?")) {
      unwrapped(value);
      type = whole(type);
    }
    if (reader.takes("as")) {
      const text = readType(reader);
      this.typeText(text, scope.home, "tells");
      type = this.program.typeOf(text, scope.home);
    }
    if (name === "_") return;
    scope.declare(name, type);
    this.holds(scope, name, value);
  }

  /** `let .sail(vessel)`: all names in it are new. */
  protected boundCase(reader: Reader, value: Value, scope: Scope): void {
    if (reader.is("(")) this.takeApart(reader.from(...reader.skipBrackets()), value, { scope, isConstant: true });
    else this.casePattern(reader, value, { scope, areNew: true });
  }

  /** `.sail(let vessel)`, `Vessel.sail`, `.some(let note)`. Returns false if it is none of these. */
  protected casePattern(reader: Reader, value: Value, { scope, areNew }: Binding): boolean {
    const start = reader.at;
    const path: Token[] = [];
    while (reader.token.kind === "name" && reader.peek(1).text === ".") {
      path.push(reader.next());
      reader.next();
    }
    if (path.length === 0 && !reader.takes(".")) return false;
    const named =
      path.length > 0
        ? this.classNamed(
            path.map(({ text }) => text),
            scope.home,
          )
        : undefined;
    const owner = named ?? (path.length === 0 ? this.program.classOf(value.type) : undefined);
    const { token } = reader;
    const isOptional = path.length === 0 && /^(?:some|none)$/.test(token.text) && value.type?.isNullable === true;
    const entry = owner && this.entryOf(owner, token.text);
    const constant = owner && this.constantOf(owner, token);
    const result = path.length === 0 ? resultOfCase(value.type, token.text) : undefined;
    if (token.kind !== "name" || (!entry && !constant && !isOptional && path.length > 0)) {
      reader.at = start;
      return false;
    }
    reader.next();
    if (named) for (const [at, each] of path.entries()) this.namesPart(path.slice(0, at + 1), each, scope);
    if (isOptional) unwrapped(value);
    if (constant) this.flush(constant, "matches");
    else if (owner && entry) this.tellsCase(owner, token, "tells");
    else if (!value.type) this.reachesAnyCase(token);
    if (reader.is("(")) {
      const inner = reader.from(...reader.skipBrackets());
      const held = isOptional
        ? [whole(value.type)]
        : result
          ? [result]
          : (entry?.parameters ?? []).map(({ type }) => owner && this.typeIn(type, owner, value.type));
      this.heldPatterns(inner, held, { scope, areNew });
    }
    if (reader.is("?")) {
      reader.next();
      unwrapped(value);
    }
    return true;
  }

  protected namesPart(path: readonly Token[], token: Token, scope: Scope): void {
    const known = this.classNamed(
      path.map(({ text }) => text),
      scope.home,
    );
    if (known) this.names(known, token, "names");
  }

  protected heldPatterns(reader: Reader, held: readonly (Type | undefined)[], { scope, areNew }: Binding): void {
    for (let at = 0; !reader.isAtEnd; at++) {
      const before = reader.at;
      if (reader.token.kind === "name" && reader.peek(1).text === ":") reader.at += 2;
      const value: Value = { type: held[at] };
      if (areNew && reader.token.kind === "name") this.bound(reader, value, scope);
      else this.pattern(reader, value, scope);
      if (!reader.takes(",") && reader.at === before) reader.next();
    }
  }
}

/** The type of the value in a case of the language's own `Result`. */
function resultOfCase(type: Type | undefined, name: string): Type | undefined {
  if (type?.name !== "Result") return undefined;
  return name === "success" ? type.arguments[0] : name === "failure" ? type.arguments[1] : undefined;
}
