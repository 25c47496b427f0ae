import type { Reader } from "../../source/reader.js";
import type { Token } from "../../source/token.js";
import { typeArguments, typeParameters } from "../../source/typeArguments.js";
import type { TypeText } from "../../source/typeText.js";

const specifiers = new Set("inout borrowing consuming sending isolated some any each repeat nonisolated".split(" "));

/** The attributes of types that have arguments (The Swift Programming Language, Attributes, Type Attributes). */
const attributesWithArguments = new Set("convention isolated differentiable".split(" "));

/** Reads a type, if there is one (The Swift Programming Language, Types). */
export function readType(reader: Reader): TypeText | undefined {
  skipSpecifiers(reader);
  const type = withMarks(readPlain(reader), reader);
  // Of `Codable & Sendable`, the first is the most specific.
  while (reader.is("&")) {
    reader.next();
    readPlain(reader);
  }
  return type;
}

function skipSpecifiers(reader: Reader): void {
  for (;;) {
    if (reader.is("@")) {
      reader.next();
      // `@escaping (Berth) -> Void`: most attributes of types have no arguments.
      const hasArguments = attributesWithArguments.has(reader.next().text);
      if (hasArguments && reader.is("(")) reader.skipBrackets();
    } else if (reader.token.kind === "name" && specifiers.has(reader.token.text) && reader.peek(1).kind !== "end")
      reader.next();
    else return;
  }
}

function readPlain(reader: Reader): TypeText | undefined {
  const { token } = reader;
  if (reader.is("(")) return readParenthesized(reader);
  if (reader.is("[")) {
    const inner = reader.from(...reader.skipBrackets());
    const first = readType(inner);
    return inner.takes(":") ? made("Dictionary", token, [first, readType(inner)]) : made("Array", token, [first]);
  }
  const path: Token[] = [];
  let given: (TypeText | undefined)[] = [];
  for (;;) {
    const part = reader.name();
    if (!part) return path.length === 0 ? undefined : { path, arguments: given, isNullable: false };
    path.push(part);
    if (reader.is("<")) given = readTypeArguments(reader) ?? [];
    if (!(reader.is(".") && reader.peek(1).kind === "name")) break;
    reader.next();
  }
  const [only, inner] = [path.at(-1)?.text, given[0]];
  return only === "Optional" && inner ? { ...inner, isNullable: true } : { path, arguments: given, isNullable: false };
}

function withMarks(type: TypeText | undefined, reader: Reader): TypeText | undefined {
  let found = type;
  for (;;) {
    if ((reader.is("?") || reader.is("!")) && !reader.token.startsLine && isRightBehind(reader)) {
      reader.next();
      found = found && { ...found, isNullable: true };
    } else if (reader.is("??") && isRightBehind(reader)) reader.next();
    else if (reader.is(".") && (reader.peek(1).text === "Type" || reader.peek(1).text === "Protocol")) reader.at += 2;
    else return found;
  }
}

function isRightBehind(reader: Reader): boolean {
  return reader.token.offset === reader.peek(-1).end;
}

function made(name: string, token: Token, given: readonly (TypeText | undefined)[]): TypeText {
  return { path: [{ ...token, kind: "name", text: name }], arguments: given, isNullable: false };
}

/** A tuple, a function type, or a type in parentheses. */
function readParenthesized(reader: Reader): TypeText | undefined {
  const { token } = reader;
  const inner = reader.from(...reader.skipBrackets());
  const parts: (TypeText | undefined)[] = [];
  const labels: (string | undefined)[] = [];
  while (!inner.isAtEnd) {
    const before = inner.at;
    const isTwo = inner.token.kind === "name" && inner.peek(1).kind === "name" && inner.peek(2).text === ":";
    if (isTwo) inner.next();
    const isLabelled = inner.token.kind === "name" && inner.peek(1).text === ":";
    labels.push(isLabelled ? inner.token.text : undefined);
    if (isLabelled) inner.at += 2;
    parts.push(readType(inner));
    inner.takes("...");
    if (!inner.takes(",") && inner.at === before) break;
    if (inner.at === before) inner.next();
  }
  const isFunction = readEffects(reader).isFunction || reader.is("->");
  if (isFunction && reader.takes("->"))
    return {
      path: [],
      arguments: [],
      isNullable: false,
      function: { receiver: undefined, parameters: parts, result: readType(reader) },
    };
  if (parts.length === 1) return parts[0];
  return { ...made(parts.length === 0 ? "Void" : "Tuple", token, parts), labels };
}

/** Reads `async throws(Failure)`, with the type of errors. */
export function readEffects(reader: Reader): { readonly isFunction: boolean; readonly failure: TypeText | undefined } {
  let isFunction = false;
  let failure: TypeText | undefined;
  for (;;) {
    if (reader.is("async") || reader.is("reasync")) reader.next();
    else if (reader.is("throws") || reader.is("rethrows")) {
      const word = reader.next();
      failure = reader.is("(") ? readType(reader.from(...reader.skipBrackets())) : made("Error", word, []);
    } else return { isFunction, failure };
    isFunction = true;
  }
}

/**
 * Reads types between `<` and `>`.
 *
 * @returns undefined if this is a comparison; then nothing is skipped
 */
export function readTypeArguments(reader: Reader): (TypeText | undefined)[] | undefined {
  return typeArguments(reader, readType);
}

/** Reads the names of type parameters, if there are some. */
export function readTypeParameters(reader: Reader): string[] {
  return typeParameters(reader, ["each"]);
}
