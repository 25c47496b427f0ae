import type { Reader } from "../../source/reader.js";
import type { Token } from "../../source/token.js";
import { typeArguments, typeParameters } from "../../source/typeArguments.js";
import type { TypeText } from "../../source/typeText.js";

/** Reads a type, if there is one (Kotlin grammar, `type`). */
export function readType(reader: Reader): TypeText | undefined {
  while (reader.is("@")) {
    reader.next();
    reader.name();
    if (reader.is("(")) reader.skipBrackets();
  }
  reader.takes("suspend");
  if (reader.is("(")) return readParenthesized(reader);
  if (reader.takes("*")) return undefined;
  if (reader.token.kind === "name" && (reader.is("in") || reader.is("out")) && reader.peek(1).kind === "name")
    reader.next();
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
  const isNullable = takesMarks(reader);
  const type: TypeText = { path, arguments: given, isNullable };
  if (reader.is(".") && reader.peek(1).text === "(") {
    reader.next();
    const read = readParenthesized(reader);
    return read?.function ? { ...read, function: { ...read.function, receiver: type } } : read;
  }
  // `T & Any` is the non-null form of T.
  if (reader.is("&") && reader.peek(1).text === "Any") reader.at += 2;
  return type;
}

function takesMarks(reader: Reader): boolean {
  let found = false;
  while (reader.takes("?")) found = true;
  return found;
}

/** A function type, or a type in parentheses. */
function readParenthesized(reader: Reader): TypeText | undefined {
  const [from, to] = reader.skipBrackets();
  const inner = reader.from(from, to);
  const parameters: (TypeText | undefined)[] = [];
  while (!inner.isAtEnd) {
    if (inner.token.kind === "name" && inner.peek(1).text === ":") inner.at += 2;
    const before = inner.at;
    parameters.push(readType(inner));
    if (!inner.takes(",") && inner.at === before) break;
  }
  if (reader.takes("->"))
    return {
      path: [],
      arguments: [],
      isNullable: false,
      function: { receiver: undefined, parameters, result: readType(reader) },
    };
  const [only] = parameters;
  const isNullable = takesMarks(reader);
  return only && isNullable ? { ...only, isNullable } : only;
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
  return typeParameters(reader, ["in", "out", "reified"]);
}
