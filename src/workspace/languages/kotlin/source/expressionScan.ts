import { printCoordinate } from "../../../../core/use/coordinate.js";
import type { Type } from "../../source/knownProgram.js";
import { Reader } from "../../source/reader.js";
import type { Scope } from "../../source/scope.js";
import { builtIn } from "../../source/library.js";
import { calledOn, itemOf, knownProperty, kotlinLibrary } from "./standardLibrary.js";
import type { Token } from "../../source/token.js";
import { readType, readTypeArguments } from "./readType.js";
import { nothing, nothingKnown, onlyDone, type Narrowing, type Value } from "../../source/values.js";
import type { Told } from "../../source/told.js";
import { CallScan } from "../../source/callScan.js";

const numbers: ReadonlySet<string> = new Set(["Int", "Long", "Double"]);

function isNumber({ type }: Value): boolean {
  return type !== undefined && numbers.has(type.name) && !type.isNullable;
}

/** Scans expressions, as far as they are not statements. */
export abstract class ExpressionScan extends CallScan {
  protected readonly library = kotlinLibrary;

  protected abstract keyword(reader: Reader, scope: Scope, wanted?: Type): Value | undefined;

  /** An expression whose value is used as it is. */
  protected expression(reader: Reader, scope: Scope, wanted?: Type): Value {
    const value = this.unflushed(reader, scope, wanted);
    this.flush(value, "writes");
    if (this.isHandedOn(value.type, wanted)) this.passes(value);
    return value;
  }

  protected unflushed(reader: Reader, scope: Scope, wanted?: Type): Value {
    return this.binary(reader, scope, { least: 1, wanted });
  }

  protected binary(
    reader: Reader,
    scope: Scope,
    { least, wanted }: { readonly least: number; readonly wanted?: Type | undefined },
  ): Value {
    let left = this.prefix(reader, scope, wanted);
    for (;;) {
      const { token } = reader;
      const level = levelOf(token, reader.peek(1));
      if (level === undefined || level < least) return left;
      reader.next();
      left = this.combined(left, token, { reader, scope, level });
    }
  }

  protected combined(
    left: Value,
    operator: Token,
    { reader, scope, level }: { readonly reader: Reader; readonly scope: Scope; readonly level: number },
  ): Value {
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
        const right = this.binary(reader, inside, { least: level + 1 });
        return { type: builtIn("Boolean"), holds: [...(left.holds ?? []), ...(right.holds ?? [])] };
      }
      case "||": {
        const inside = scope.inside();
        for (const { path, type } of left.fails ?? []) inside.narrow(path, type);
        const right = this.binary(reader, inside, { least: level + 1 });
        return { type: builtIn("Boolean"), fails: [...(left.fails ?? []), ...(right.fails ?? [])] };
      }
      case "?:": {
        this.flush(left, "writes");
        const right = this.binary(reader, scope, { least: level + 1, wanted: left.type });
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
        const right = this.binary(reader, scope, { least: level + 1 });
        this.flush(left, "matches");
        this.flush(right, "matches");
        if (!text.endsWith("in")) for (const each of [left, right]) onlyDone(each, "compares");
        return { type: builtIn("Boolean") };
      }
      default: {
        const right = this.binary(reader, scope, { least: level + 1 });
        this.flush(left, "writes");
        this.flush(right, "writes");
        if (text === "to")
          return { type: builtIn("Pair", left.type, right.type), parts: [left.read ?? [], right.read ?? []] };
        const isOrder = ["<", ">", "<=", ">="].includes(text);
        const isCalculated = (isOrder || ["+", "-", "*", "/", "%"].includes(text)) && isNumber(left) && isNumber(right);
        const computed = isCalculated
          ? [left, right].flatMap((each) => [...(each.read ?? []), ...(each.computed ?? [])])
          : [];
        if (isOrder) {
          for (const each of computed) each.kind = "computes";
          return { type: builtIn("Boolean") };
        }
        if (isCalculated) return { type: left.type?.name === "Double" ? left.type : right.type, computed };
        if (text === "+" && left.type?.name === "String") onlyDone(right, "shows");
        if (operator.kind === "name") return this.infix(left, operator, { right, scope });
        return { type: text === ".." ? builtIn("List", left.type) : (left.type ?? right.type) };
      }
    }
  }

  protected infix(
    left: Value,
    operator: Token,
    { right, scope }: { readonly right: Value; readonly scope: Scope },
  ): Value {
    const found = this.functionOn(left.type, operator.text, scope);
    if (found) return { type: this.resultOf(found, left.type) };
    return { type: calledOn(left.type, operator.text)?.result(right.type) };
  }

  /** The type after `is`, which the value has from then on. */
  protected checked(value: Value, reader: Reader, scope: Scope): Narrowing[] {
    const text = readType(reader);
    this.typeText(text, scope.home, "tells");
    const type = this.program.typeOf(text, scope.home);
    return value.path !== undefined && type ? [{ path: value.path, type: this.withArguments(type, value.type) }] : [];
  }

  protected prefix(reader: Reader, scope: Scope, wanted?: Type): Value {
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

  protected postfix(reader: Reader, scope: Scope, wanted?: Type): Value {
    let value = this.primary(reader, scope, wanted);
    for (;;) {
      const { token } = reader;
      if (token.kind !== "symbol") return value;
      if (token.text === "." || token.text === "?.") {
        reader.next();
        value = this.member(value, reader, { scope, isSafe: token.text === "?." });
      } else if (token.text === "::") {
        reader.next();
        value = this.reference(value, reader, scope);
      } else if (token.text === "!!") {
        reader.next();
        value = { ...value, type: value.type && { ...value.type, isNullable: false } };
      } else if ((token.text === "++" || token.text === "--") && !token.startsLine) reader.next();
      else if (token.text === "[" && !token.startsLine) {
        this.arguments(reader.from(...reader.skipBrackets()), scope, nothingKnown);
        value = { type: this.indexed(value.type) };
      } else if (token.text === "(" && !token.startsLine) {
        const given = value.type?.function?.parameters ?? [];
        this.arguments(reader.from(...reader.skipBrackets()), scope, { wanted: given });
        value = { type: value.type?.function?.result };
      } else return value;
    }
  }

  protected indexed(type: Type | undefined): Type | undefined {
    if (!type) return undefined;
    if (type.name.endsWith("Map")) return type.arguments[1] && { ...type.arguments[1], isNullable: true };
    return itemOf(type);
  }

  protected primary(reader: Reader, scope: Scope, wanted?: Type): Value {
    const { token } = reader;
    switch (token.kind) {
      case "text": {
        reader.next();
        for (const inside of token.inside ?? []) {
          onlyDone(this.expression(new Reader(inside), scope), "shows");
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
            type: this.lambda(reader, scope, {
              parameters: wanted?.function?.parameters ?? [],
              receiver: wanted?.function?.receiver,
            }).type,
          };
        if (token.text === "[") {
          this.arguments(reader.from(...reader.skipBrackets()), scope, nothingKnown);
          return {};
        }
        if (token.text === "::") {
          reader.next();
          return this.reference({}, reader, scope);
        }
        return {};
      case "name":
        return this.keyword(reader, scope, wanted) ?? this.name(reader, scope, wanted);
      default:
        return {};
    }
  }

  /** `::name`, `Berth::note`, `harbour::getBerth`. */
  protected reference(of: Value, reader: Reader, scope: Scope): Value {
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
    if (this.sdk.isCall(found)) this.tell?.(printCoordinate(found.text.name), "calls", token);
    const parameters = found.text.parameters.map((each) => this.program.typeOf(each.type, found.home));
    return {
      type: {
        ...builtIn("Function"),
        function: { receiver: undefined, parameters, result: this.resultOf(found, type) },
      },
    };
  }

  /** A name at the start of an expression. */
  protected name(reader: Reader, scope: Scope, wanted?: Type): Value {
    const token = reader.next();
    const typeArguments = this.typeArguments(reader, scope);
    if (this.isCalled(reader)) return this.callAlone({ token, typeArguments, reader, scope, wanted });
    const { text } = token;
    const narrowed = scope.narrowedType(text);
    if (scope.has(text)) {
      const type = narrowed ?? scope.variable(text);
      const holder = scope.holder(text);
      if (!holder) return { type, path: text };
      const held: Told = { kind: "reads" };
      if (this.tell) holder.places.push(held);
      return { type, path: text, held };
    }
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

  protected typeArguments(reader: Reader, scope: Scope): readonly (Type | undefined)[] {
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

  protected isCalled(reader: Reader): boolean {
    const { token } = reader;
    return token.kind === "symbol" && (token.text === "(" || token.text === "{") && !token.startsLine;
  }

  protected member(
    of: Value,
    reader: Reader,
    { scope, isSafe }: { readonly scope: Scope; readonly isSafe: boolean },
  ): Value {
    const token = reader.name();
    if (!token) return {};
    const { text } = token;
    const typeArguments = this.typeArguments(reader, scope);
    if (this.isCalled(reader)) {
      const called = this.callOn(of, { token, typeArguments, reader, scope });
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
      // A value read with `?.` from a nullable one may be null anyway.
      if (isSafe && of.type.isNullable) for (const each of read.read ?? []) each.takesNull = true;
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

  /** `com.ostrel.harbour.berths.Berth`: a class with its full name. */
  protected packageMember(of: Value, token: Token, scope: Scope): Value | undefined {
    if (of.type || of.path === undefined || scope.has(of.path.split(".")[0] ?? "")) return undefined;
    const known = this.program.classes.get(`${of.path}.${token.text}`);
    if (!known)
      return this.program.isPackage(`${of.path}.${token.text}`) ? { path: `${of.path}.${token.text}` } : undefined;
    this.names(known, token, "names");
    return { named: known };
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

/** The precedence of an operator (Kotlin grammar, precedence); undefined if it is not one. */
function levelOf({ kind, text, startsLine }: Token, next: Token): number | undefined {
  if (kind === "symbol" || text === "in" || text === "is" || text === "as") {
    if (startsLine && !["?:", "&&", "||", "as", "as?"].includes(text)) return undefined;
    return levels[text];
  }
  // A name between two values on one line is an infix function.
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
