import type { Type } from "../../source/knownProgram.js";
import { builtIn } from "../../source/library.js";
import { Reader } from "../../source/reader.js";
import type { Scope } from "../../source/scope.js";
import type { Token } from "../../source/token.js";
import { nothingKnown, onlyDone, type Value } from "../../source/values.js";
import { MemberScan, unwrapped, whole } from "./memberScan.js";
import { goesOn } from "./declarations.js";
import { readType } from "./readType.js";
import { itemOf } from "./standardLibrary.js";

const numbers: ReadonlySet<string> = new Set(["Int", "Int32", "Int64", "Double", "Float"]);

function isNumber({ type }: Value): boolean {
  return type !== undefined && numbers.has(type.name) && !type.isNullable;
}

/** Scans expressions in Swift (The Swift Programming Language, Expressions). */
export abstract class ExpressionScan extends MemberScan {
  protected abstract keyword(reader: Reader, scope: Scope, wanted?: Type): Value | undefined;

  /** An expression whose value is used as it is. */
  protected expression(reader: Reader, scope: Scope, wanted?: Type): Value {
    const value = this.unflushed(reader, scope, wanted);
    this.flush(value, "writes");
    if (this.isHandedOn(value.type, wanted)) this.passes(value);
    return value;
  }

  protected unflushed(reader: Reader, scope: Scope, wanted?: Type): Value {
    const value = this.binary(reader, scope, { least: 1, wanted });
    if (!isTernary(reader)) return value;
    reader.next();
    const first = this.unflushed(reader, scope, wanted);
    this.flush(first, "writes");
    reader.takes(":");
    const second = this.unflushed(reader, scope, wanted ?? first.type);
    this.flush(second, "writes");
    const isNullable = first.type?.isNullable === true || second.type?.isNullable === true;
    const type = first.type ?? second.type;
    return { type: type && { ...type, isNullable }, read: [...(first.read ?? []), ...(second.read ?? [])] };
  }

  private binary(
    reader: Reader,
    scope: Scope,
    { least, wanted }: { readonly least: number; readonly wanted?: Type | undefined },
  ): Value {
    let left = this.prefix(reader, scope, wanted);
    for (;;) {
      const { token } = reader;
      const level = token.startsLine && !goesOn(reader) ? undefined : levelOf(token);
      if (level === undefined || level < least) return left;
      reader.next();
      left = this.combined(left, token, { reader, scope, level });
    }
  }

  private combined(
    left: Value,
    { text }: Token,
    { reader, scope, level }: { readonly reader: Reader; readonly scope: Scope; readonly level: number },
  ): Value {
    if (text === "is" || text === "as") {
      const isMaybe = reader.takes("?");
      if (!isMaybe) reader.takes("!");
      const type = readType(reader);
      this.typeText(type, scope.home, text === "is" || isMaybe ? "tells" : "names");
      const to = this.program.typeOf(type, scope.home);
      this.flush(left, "writes");
      return text === "is" ? { type: builtIn("Bool") } : { type: to && { ...to, isNullable: isMaybe } };
    }
    const right = this.binary(reader, scope, { least: level + 1, wanted: whole(left.type) });
    const isComparison = ["==", "!=", "===", "!==", "~="].includes(text);
    // `.free == berth.status`
    for (const each of [left, right]) this.flush(each, isComparison ? "matches" : "writes");
    if (isComparison) {
      for (const each of [left, right]) onlyDone(each, "compares");
      return { type: builtIn("Bool") };
    }
    const read = [...(left.read ?? []), ...(right.read ?? [])];
    switch (text) {
      case "&&":
      case "||":
        return { type: builtIn("Bool") };
      case "??":
        // The value after `??` has the same type, and so does the result.
        for (const each of left.read ?? []) each.takesNull = true;
        return {
          type: left.type ? { ...left.type, isNullable: right.type?.isNullable === true } : right.type,
          // An integer literal after `??` has whatever number type is expected.
          ...(right.isWritten === true
            ? { computed: [...(left.read ?? []), ...(left.computed ?? []), ...(left.held ? [left.held] : [])] }
            : {}),
        };
      case "...":
      case "..<":
        return { type: builtIn("Range", left.type) };
      default: {
        const isOrder = ["<", ">", "<=", ">="].includes(text);
        // An integer literal has whatever type is expected. Any other value has one type.
        const isCalculated = isNumber(left) && isNumber(right) && (left.isWritten === true || right.isWritten === true);
        const computed = isCalculated
          ? [left, right].flatMap(({ read: own = [], computed: from = [], held }) => [
              ...own,
              ...from,
              ...(held ? [held] : []),
            ])
          : [];
        if (isOrder) {
          for (const each of computed) each.kind = "computes";
          // The same member of two records is compared with itself, whatever it is.
          const [one, other, ...more] = read;
          if (!isCalculated && one && other && more.length === 0 && one.coordinate === other.coordinate)
            for (const each of read) each.kind = "orders";
          return { type: builtIn("Bool") };
        }
        if (text === "+" && left.type?.name === "String" && right.type?.name === "String") return { type: left.type };
        const type = left.isWritten === true ? (right.type ?? left.type) : (left.type ?? right.type);
        return { type, ...(isCalculated ? { computed } : {}) };
      }
    }
  }

  private prefix(reader: Reader, scope: Scope, wanted?: Type): Value {
    const { token } = reader;
    if (token.kind === "name" && token.isQuoted !== true && ["try", "await", "consume", "copy"].includes(token.text)) {
      const next = reader.peek(1);
      if (next.kind !== "symbol" || /^[?!([{.\\-]$/.test(next.text)) return this.attempted(reader, scope, wanted);
    }
    if (token.kind === "symbol" && ["!", "-", "+", "~", "&"].includes(token.text)) {
      reader.next();
      const value = this.prefix(reader, scope, wanted);
      if (token.text !== "!") return value;
      return { type: builtIn("Bool") };
    }
    return this.postfix(reader, scope, wanted);
  }

  private attempted(reader: Reader, scope: Scope, wanted?: Type): Value {
    const word = reader.next().text;
    const isMaybe = word === "try" && (reader.is("?") || reader.is("!")) ? reader.next().text === "?" : undefined;
    // An error is caught here.
    if (isMaybe !== undefined) this.thrown.push([]);
    const value = this.unflushed(reader, scope, wanted);
    if (isMaybe !== undefined) this.thrown.pop();
    return isMaybe === true && value.type ? { ...value, type: { ...value.type, isNullable: true } } : value;
  }

  /** A chain of members. If one of them is read with `?.`, the whole chain may be nil. */
  private postfix(reader: Reader, scope: Scope, wanted?: Type): Value {
    let value = this.primary(reader, scope, wanted);
    let isSafe = false;
    const made = (): Value => (isSafe && value.type ? { ...value, type: { ...value.type, isNullable: true } } : value);
    for (;;) {
      const { token } = reader;
      if (token.kind !== "symbol") return made();
      const isRightBehind = token.offset === reader.peek(-1).end;
      if (token.text === "." && reader.peek(1).kind !== "symbol") {
        reader.next();
        value = this.member(value, reader, { scope, isSafe, wanted });
      } else if (
        (token.text === "?" || token.text === "??") &&
        isRightBehind &&
        /^[.[(!=]$/.test(reader.peek(1).text)
      ) {
        reader.next();
        unwrapped(value);
        isSafe = true;
        value = { ...value, type: whole(value.type) };
      } else if (token.text === "!" && isRightBehind) {
        reader.next();
        unwrapped(value);
        value = { ...value, type: whole(value.type) };
      } else if (token.text === "[" && !token.startsLine) {
        value = { type: this.subscripted(value.type, reader, scope) };
      } else if ((token.text === "(" && !token.startsLine) || (value.type?.function && this.isClosure(reader))) {
        const given = value.type?.function?.parameters ?? [];
        this.callArguments(reader, scope, { wanted: given });
        value = { type: value.type?.function?.result };
      } else return made();
    }
  }

  /** The type of an item: by a subscript of the app, or by the language's own. */
  private subscripted(type: Type | undefined, reader: Reader, scope: Scope): Type | undefined {
    const inner = reader.from(...reader.skipBrackets());
    const label = inner.peek(1).text === ":" && inner.token.kind === "name" ? inner.token.text : "";
    const first = type && this.functionOn(type, "subscript", scope);
    // A list has its own subscript, besides those of extensions.
    const isOwn = label !== "" || !indexed(type);
    const all = first && isOwn ? this.overloadsOf(first) : [];
    const found = all.find(({ text }) => (text.parameters[0]?.name ?? "") === label);
    const { parameters, result } = found?.text ?? { parameters: [], result: undefined };
    const own = type ? this.inExtensionOf(type) : [];
    const home = { ...scope.home, ...found?.home, parameters: new Map([...(found?.home.parameters ?? []), ...own]) };
    const wanted = parameters.map((each) => this.program.typeOf(each.type, home));
    this.withHead(false, () => this.arguments(inner, scope, { wanted, parameters }));
    return result ? this.program.typeOf(result, home) : indexed(type);
  }

  private primary(reader: Reader, scope: Scope, wanted?: Type): Value {
    const { token } = reader;
    switch (token.kind) {
      case "text": {
        reader.next();
        this.withHead(false, () => {
          for (const inside of token.inside ?? []) {
            const inner = new Reader(inside);
            onlyDone(this.expression(inner, scope), "shows");
            // `\(length, specifier: "%.1f")`
            if (inner.takes(",")) this.arguments(inner, scope, nothingKnown);
          }
        });
        return { type: builtIn("String") };
      }
      case "number":
        reader.next();
        if (/[.eE]/.test(token.text) && !token.text.startsWith("0x")) return { type: builtIn("Double") };
        return { type: wanted && numbers.has(wanted.name) ? whole(wanted) : builtIn("Int"), isWritten: true };
      case "symbol":
        return this.symbol(reader, scope, wanted);
      case "name":
        return this.keyword(reader, scope, wanted) ?? this.name(reader, scope, wanted);
      default:
        return {};
    }
  }

  private symbol(reader: Reader, scope: Scope, wanted: Type | undefined): Value {
    switch (reader.token.text) {
      case "(":
        return this.withHead(false, () => this.parenthesized(reader, scope, wanted));
      case "[":
        return this.withHead(false, () => this.collection(reader, scope, wanted));
      case "{":
        if (this.isHead) return {};
        return this.lambda(reader, scope, { parameters: wanted?.function?.parameters ?? [], receiver: undefined });
      case ".":
        return this.implicitMember(reader, scope, wanted);
      case "\\":
        return this.keyPath(reader, scope, wanted?.function?.parameters[0]);
      default:
        return {};
    }
  }

  private parenthesized(reader: Reader, scope: Scope, wanted: Type | undefined): Value {
    const inner = reader.from(...reader.skipBrackets());
    const labels: (string | undefined)[] = [];
    const parts: Value[] = [];
    while (!inner.isAtEnd) {
      const before = inner.at;
      const isLabelled = inner.token.kind === "name" && inner.peek(1).text === ":";
      labels.push(isLabelled ? inner.token.text : undefined);
      if (isLabelled) inner.at += 2;
      const isOne = parts.length === 0;
      const of = isOne && wanted?.name !== "Tuple" ? wanted : wanted?.arguments[parts.length];
      parts.push(this.unflushed(inner, scope, of));
      if (!inner.takes(",") && inner.at === before) inner.next();
    }
    const [only, ...more] = parts;
    if (more.length === 0) return only ?? { type: builtIn("Void") };
    for (const each of parts) this.flush(each, "writes");
    return {
      // `(Int, Berth).self` is the type of such tuples.
      type: { ...builtIn("Tuple", ...parts.map(({ type, named }) => type ?? (named && builtIn(named.name)))), labels },
      parts: parts.map(({ read = [] }) => read),
    };
  }

  /** A list or dictionary literal, or its type. */
  private collection(reader: Reader, scope: Scope, wanted: Type | undefined): Value {
    const start = reader.at;
    const inner = reader.from(...reader.skipBrackets());
    // `[Berth]()`
    if (reader.is("(") || (reader.is(".") && /^(?:self|init)$/.test(reader.peek(1).text))) {
      const again = reader.from(start);
      const text = readType(again);
      this.typeText(text, scope.home);
      if (reader.is("(")) this.callArguments(reader, scope, nothingKnown);
      return { type: this.program.typeOf(text, scope.home) };
    }
    const isMap = wanted?.name === "Dictionary";
    let [first, second]: (Type | undefined)[] = [];
    let isPairs = false;
    while (!inner.isAtEnd) {
      const before = inner.at;
      if (inner.takes(":")) break;
      const key = this.expression(inner, scope, isMap ? wanted.arguments[0] : itemOf(wanted));
      first ??= key.type;
      if (inner.takes(":")) {
        isPairs = true;
        second ??= this.expression(inner, scope, wanted?.arguments[1]).type;
      }
      if (!inner.takes(",") && inner.at === before) inner.next();
    }
    if (wanted && !wanted.function && wanted.arguments.every((each) => each)) return { type: whole(wanted) };
    return { type: isPairs ? builtIn("Dictionary", first, second) : builtIn("Array", first) };
  }
}

function indexed(type: Type | undefined): Type | undefined {
  if (!type) return undefined;
  if (type.name === "Dictionary") return type.arguments[1] && { ...type.arguments[1], isNullable: true };
  return itemOf(type);
}

/** `? :` has a space before the question mark. */
function isTernary(reader: Reader): boolean {
  return reader.is("?") && reader.token.offset > reader.peek(-1).end;
}

const levels: Readonly<Record<string, number>> = {
  "||": 1,
  "&&": 2,
  "==": 3,
  "!=": 3,
  "===": 3,
  "!==": 3,
  "~=": 3,
  "<": 3,
  ">": 3,
  "<=": 3,
  ">=": 3,
  "??": 4,
  is: 5,
  as: 5,
  "...": 6,
  "..<": 6,
  "+": 7,
  "-": 7,
  "&+": 7,
  "&-": 7,
  "|": 7,
  "^": 7,
  "*": 8,
  "/": 8,
  "%": 8,
  "&*": 8,
  "&": 8,
  "<<": 9,
};

/** The precedence of an operator (Swift standard library, operator declarations); undefined if it is not one. */
function levelOf({ kind, text, isQuoted }: Token): number | undefined {
  if (isQuoted === true || (kind !== "symbol" && text !== "is" && text !== "as")) return undefined;
  return Object.hasOwn(levels, text) ? levels[text] : undefined;
}
