import type { KnownClass, Type } from "../../source/knownProgram.js";
import { builtIn } from "../../source/library.js";
import type { Reader } from "../../source/reader.js";
import type { Scope } from "../../source/scope.js";
import type { Token } from "../../source/token.js";
import { nothingKnown, type Value } from "../../source/values.js";
import type { Told } from "../../source/told.js";
import { CallScanInSwift } from "./callScanInSwift.js";
import { readType, readTypeArguments } from "./readType.js";
import { knownProperty } from "./standardLibrary.js";

/** Scans names and members: of values, of types, and of the expected type. */
export abstract class MemberScan extends CallScanInSwift {
  /** `.free`, `.init(…)`, `.sail(vessel)`: a member of the expected type. */
  protected override implicitMember(reader: Reader, scope: Scope, wanted: Type | undefined): Value {
    reader.next();
    const { token } = reader;
    const owner = this.program.classOf(wanted);
    if (!reader.name()) return {};
    const isCalled = this.isCalled(reader);
    if (!owner) {
      if (!wanted && token.text === "init") this.reachesAnyMade(token, reader);
      else if (!wanted) this.reachesAnyCase(token);
      if (isCalled) this.callArguments(reader, scope, nothingKnown);
      return {};
    }
    return this.ofType(owner, token, { reader, scope, isCalled, of: whole(wanted) });
  }

  /** A member of a type itself. */
  protected ofType(
    owner: KnownClass,
    token: Token,
    {
      reader,
      scope,
      isCalled,
      of,
    }: { readonly reader: Reader; readonly scope: Scope; readonly isCalled: boolean; readonly of: Type | undefined },
  ): Value {
    if (token.text === "init" && isCalled)
      return this.constructed(owner, { token, typeArguments: [], reader, scope, wanted: of });
    if (
      this.entryOf(owner, token.text) &&
      this.sdk.constant(this.sdk.coordinateOf(owner) ?? "", token.text) === undefined
    )
      return this.madeCase(owner, token, { reader, scope, wanted: of });
    if (isCalled) {
      const found = this.functionOn(builtIn(owner.name), token.text, scope);
      if (found) return this.called(found, builtIn(owner.name), { token, typeArguments: [], reader, scope });
      this.callArguments(reader, scope, nothingKnown);
      return {};
    }
    const constant = this.constantOf(owner, token);
    if (constant) return constant;
    return { type: this.propertyOn(of ?? builtIn(owner.name), token.text)?.type };
  }

  /** `\.note`, `\Berth.size?.width`: the members that it reads from its root. */
  protected override keyPath(reader: Reader, scope: Scope, root: Type | undefined): Value {
    reader.next();
    let from = root;
    if (reader.token.kind === "name") {
      const text = readTypeOfPath(reader);
      this.typeText(text, scope.home);
      from = this.program.typeOf(text, scope.home);
    }
    let value: Value = { type: from };
    let isSafe = false;
    while (reader.is(".") || reader.is("?") || reader.is("!")) {
      if (!reader.is(".")) {
        isSafe ||= reader.next().text === "?";
        unwrapped(value);
        value = { ...value, type: whole(value.type) };
        continue;
      }
      reader.next();
      const token = reader.name();
      if (!token) break;
      if (token.text === "self") continue;
      value = this.propertyRead(value, token, isSafe);
    }
    const result = isSafe && value.type ? { ...value.type, isNullable: true } : value.type;
    return {
      type: { ...builtIn("Function"), function: { receiver: undefined, parameters: [from], result } },
      read: value.read,
    };
  }

  /** A name at the start of an expression. */
  protected name(reader: Reader, scope: Scope, wanted?: Type): Value {
    const token = reader.next();
    const typeArguments = this.typeArguments(reader, scope);
    // `$model` is a binding to the value of `model`.
    const text = token.text.replace(/^\$(?=\D)/, "");
    if (this.isCalled(reader) && !this.isValue(text, scope))
      return this.callAlone({ token, typeArguments, reader, scope, wanted });
    if (scope.has(text)) {
      const type = scope.variable(text);
      const holder = scope.holder(text);
      if (!holder) return { type, path: text };
      const held: Told = { kind: "reads" };
      if (this.tell) holder.places.push(held);
      return { type, path: text, held };
    }
    for (const receiver of scope.receivers) {
      const found = this.propertyOn(receiver, text);
      if (!found) continue;
      return { type: found.type, path: text, ...(found.owner ? this.reads(found.owner, text, token) : {}) };
    }
    const property = this.program.properties
      .get(text)
      ?.find(({ text: each }) => !("receiver" in each && each.receiver));
    if (property) return { type: this.typeOfProperty(property.text, property.home), path: text };
    const known = this.classNamed([text], scope.home);
    if (!known) return {};
    this.names(known, token, "names");
    return { named: known };
  }

  /** Whether a name is a value that is called, not a function. */
  protected isValue(name: string, scope: Scope): boolean {
    return scope.has(name) && scope.localFunction(name) === undefined;
  }

  protected typeArguments(reader: Reader, scope: Scope): readonly (Type | undefined)[] {
    if (!reader.is("<")) return [];
    const before = reader.at;
    const texts = readTypeArguments(reader);
    if (!texts || !/^[({).,]$/.test(reader.token.text) || reader.token.kind === "text") {
      reader.at = before;
      return [];
    }
    for (const text of texts) this.typeText(text, scope.home);
    return texts.map((text) => this.program.typeOf(text, scope.home));
  }

  protected isCalled(reader: Reader): boolean {
    return (reader.is("(") && !reader.token.startsLine) || this.isClosure(reader);
  }

  protected member(
    of: Value,
    reader: Reader,
    { scope, isSafe, wanted }: { readonly scope: Scope; readonly isSafe: boolean; readonly wanted: Type | undefined },
  ): Value {
    const token = reader.next();
    const typeArguments = this.typeArguments(reader, scope);
    if (of.named) {
      const nested = this.nestedIn(of.named, token.text);
      if (nested && !this.isCalled(reader)) {
        this.names(nested, token, "names");
        return { named: nested };
      }
      if (token.text === "self") return of;
      if (!nested)
        return this.ofType(of.named, token, { reader, scope, isCalled: this.isCalled(reader), of: undefined });
    }
    if (this.isCalled(reader)) {
      this.unwrapsByCall(of, token);
      const property = of.type && this.propertyOn(of.type, token.text);
      if (property?.type?.function) return this.propertyRead(of, token, isSafe);
      return this.callOn(of, { token, typeArguments, reader, scope, wanted });
    }
    return this.propertyRead(of, token, isSafe);
  }

  /** `note.map { … }` of an optional is a function of the optional. */
  protected unwrapsByCall(of: Value, { text }: Token): void {
    if (of.type?.isNullable === true && (text === "map" || text === "flatMap")) unwrapped(of);
  }

  protected propertyRead(of: Value, token: Token, isSafe: boolean): Value {
    const { text } = token;
    const path = of.path === undefined ? undefined : `${of.path}.${text}`;
    if (!of.type) {
      this.reachesAny(token);
      return path === undefined ? {} : { path };
    }
    if (text === "self") return of;
    const found = this.propertyOn(of.type, text);
    const type = found ? found.type : knownProperty(of.type, text);
    const read = found?.owner ? this.reads(found.owner, text, token) : {};
    // A value read with `?.` may be nil anyway.
    if (isSafe) for (const each of read.read ?? []) each.takesNull = true;
    return {
      type,
      ...read,
      ...(path === undefined ? {} : { path }),
    };
  }

  /** A property of a type: its own, or one of an extension. */
  protected propertyOn(
    type: Type,
    name: string,
  ): { readonly type: Type | undefined; readonly owner: KnownClass | undefined } | undefined {
    const known = this.program.classOf(type);
    const own = known && this.propertyOf(known, name);
    if (own) return { type: this.memberType(own.text, own.owner, type), owner: own.owner };
    const extension = this.program.properties
      .get(name)
      ?.find(
        ({ text, home }) =>
          "receiver" in text && text.receiver && this.fits(type, this.program.typeOf(text.receiver, home)),
      );
    if (!extension) return undefined;
    const parameters = new Map([...extension.home.parameters, ...this.inExtensionOf(type)]);
    return { type: this.typeOfProperty(extension.text, { ...extension.home, parameters }), owner: undefined };
  }
}

/** Returns the non-optional form of a type. */
export function whole(type: Type | undefined): Type | undefined {
  return type && { ...type, isNullable: false };
}

/** Records that source expects that a value may be nil. */
export function unwrapped({ read = [], held }: Value): void {
  for (const each of [...read, ...(held ? [held] : [])]) each.unwraps = true;
}

/** The root of a key path: a type's name as far as its parts begin with capitals. */
function readTypeOfPath(reader: Reader) {
  const end = reader.from(reader.at);
  while (end.token.kind === "name" && /^\p{Lu}/u.test(end.token.text)) {
    end.next();
    if (!end.is(".") || !/^\p{Lu}/u.test(end.peek(1).text)) break;
    end.next();
  }
  const text = readType(reader.from(reader.at, end.at));
  reader.at = end.at;
  return text;
}
