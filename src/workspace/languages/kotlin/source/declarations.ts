import type {
  ClassText,
  Declarations,
  FunctionText,
  ParameterText,
  PropertyText,
  Range,
  SourceFile,
} from "../../source/declared.js";
import { Reader } from "../../source/reader.js";
import type { Token } from "../../source/token.js";
import { typeBounds } from "../../source/typeArguments.js";
import type { TypeText } from "../../source/typeText.js";
import { readType, readTypeParameters } from "./readType.js";
import { tokensOf } from "./tokens.js";

/**
 * Reads a file's declarations. Bodies are stored as ranges of tokens.
 *
 * @param document the name of the file
 * @param isSdk whether it is a file of an SDK
 */
export function readSource(document: string, text: string, isSdk: boolean): SourceFile {
  const tokens = tokensOf(text);
  const reader = new Reader(tokens);
  const imports = new Map<string, { readonly whole: string; readonly token: Token }>();
  const stars: string[] = [];
  let own = "";
  while (!reader.isAtEnd) {
    if (reader.is("@") && reader.peek(1).text === "file") skipAnnotation(reader);
    else if (reader.takes("package"))
      own = dotted(reader)
        .map(({ text: part }) => part)
        .join(".");
    else if (reader.takes("import")) {
      const parts = dotted(reader);
      const whole = parts.map(({ text: part }) => part).join(".");
      const token = parts.at(-1);
      if (reader.takes("*")) stars.push(whole);
      else if (token) {
        const alias = reader.takes("as") ? reader.name()?.text : undefined;
        imports.set(alias ?? token.text, { whole, token });
      }
    } else break;
  }
  return { document, tokens, package: own, imports, stars, isSdk, declared: readDeclarations(reader) };
}

/** The parts of a full name. */
function dotted(reader: Reader): Token[] {
  const parts: Token[] = [];
  for (;;) {
    const part = reader.name();
    if (!part) return parts;
    parts.push(part);
    if (!reader.takes(".")) return parts;
  }
}

const modifiers = new Set(
  (
    "public private internal protected open abstract final sealed data enum annotation inner value inline noinline crossinline infix operator " +
    "suspend override lateinit const vararg tailrec external expect actual reified companion"
  ).split(" "),
);
const declaring = new Set(["class", "interface", "object", "fun", "val", "var", "typealias", "init", "constructor"]);

/** Reads declarations up to the end of the reader. */
export function readDeclarations(reader: Reader): Declarations {
  const found: Declarations = { classes: [], functions: [], properties: [], aliases: [], initial: [] };
  while (!reader.isAtEnd) if (!readDeclaration(reader, found)) reader.next();
  return found;
}

/**
 * Reads one declaration, if there is one.
 *
 * @param found extended in place
 * @returns whether there was one
 */
export function readDeclaration(reader: Reader, found: Declarations): boolean {
  const before = reader.at;
  const words = readModifiers(reader);
  const keyword = reader.token.text;
  const isHere = reader.token.kind === "name";
  if (isHere && keyword === "fun" && reader.peek(1).text === "interface") {
    reader.next();
    found.classes.push(readClass(reader, words));
  } else if (isHere && (keyword === "class" || keyword === "interface" || keyword === "object")) {
    const read = readClass(reader, words);
    if (words.has("companion") && "companions" in found) (found as ClassText).companions.push(read);
    else found.classes.push(read);
  } else if (isHere && keyword === "fun") found.functions.push(readFunction(reader));
  else if (isHere && (keyword === "val" || keyword === "var") && !isDestructuring(reader))
    found.properties.push(readProperty(reader));
  else if (isHere && keyword === "typealias") {
    reader.next();
    const name = reader.name()?.text ?? "";
    const parameters = readTypeParameters(reader);
    reader.takes("=");
    const type = readType(reader);
    if (type) found.aliases.push({ name, parameters, type });
  } else if (isHere && keyword === "init" && reader.peek(1).text === "{") {
    reader.next();
    found.initial.push(reader.skipBrackets());
  } else if (isHere && keyword === "constructor") {
    reader.next();
    if (reader.is("(")) reader.skipBrackets();
    if (reader.takes(":")) {
      reader.next();
      if (reader.is("(")) found.initial.push(reader.skipBrackets());
    }
    if (reader.is("{")) found.initial.push(reader.skipBrackets());
  } else {
    reader.at = before;
    return false;
  }
  return true;
}

function isDestructuring(reader: Reader): boolean {
  return reader.peek(1).text === "(";
}

/** Skips modifiers and annotations, and returns the modifiers. */
export function readModifiers(reader: Reader): Set<string> {
  const words = new Set<string>();
  for (;;) {
    const { kind, text } = reader.token;
    if (reader.is("@")) skipAnnotation(reader);
    else if (kind === "name" && modifiers.has(text) && isModifierHere(reader)) {
      words.add(text);
      reader.next();
    } else return words;
  }
}

/** Modifiers are not keywords: after one comes another, or the declaration. */
function isModifierHere(reader: Reader): boolean {
  const { kind, text } = reader.peek(1);
  return (
    text === "@" || (kind === "name" && (modifiers.has(text) || declaring.has(text) || !reader.peek(1).startsLine))
  );
}

function skipAnnotation(reader: Reader): void {
  reader.takes("@");
  if (reader.peek(1).text === ":") reader.at += 2;
  if (reader.is("[")) {
    reader.skipBrackets();
    return;
  }
  dotted(reader);
  if (reader.is("<")) readTypeParameters(reader);
  if (reader.is("(") && !reader.token.startsLine) reader.skipBrackets();
}

function readClass(reader: Reader, words: ReadonlySet<string>): ClassText {
  const kind = reader.next().text as "class" | "interface" | "object";
  const name = reader.token.kind === "name" ? reader.next().text : "Companion";
  const typeParameters = readTypeParameters(reader);
  const before = reader.at;
  readModifiers(reader);
  if (!reader.takes("constructor") && !reader.is("(")) reader.at = before;
  const parameters = reader.is("(") ? readParameters(reader) : [];
  const supers: TypeText[] = [];
  const superArguments: Range[] = [];
  if (reader.takes(":"))
    do {
      const type = readType(reader);
      if (!type) break;
      supers.push(type);
      if (reader.is("(")) superArguments.push(reader.skipBrackets());
      if (reader.takes("by")) skipExpression(reader);
    } while (reader.takes(","));
  if (reader.is("where")) while (!reader.isAtEnd && !reader.is("{")) reader.next();
  const found: ClassText = {
    name,
    kind: words.has("enum") ? "enum" : kind,
    isData: words.has("data"),
    typeParameters,
    parameters,
    supers,
    superArguments,
    entries: [],
    companions: [],
    classes: [],
    functions: [],
    properties: [],
    aliases: [],
    initial: [],
  };
  if (!reader.is("{")) return found;
  const [from, to] = reader.skipBrackets();
  const inner = reader.from(from, to);
  if (found.kind === "enum") readEntries(inner, found);
  while (!inner.isAtEnd) if (!readDeclaration(inner, found)) inner.next();
  return found;
}

function readEntries(reader: Reader, into: ClassText): void {
  for (;;) {
    readModifiers(reader);
    if (reader.token.kind !== "name" || (declaring.has(reader.token.text) && reader.peek(1).kind === "name")) return;
    const token = reader.next();
    const given = reader.is("(") ? reader.skipBrackets() : undefined;
    if (reader.is("{")) reader.skipBrackets();
    into.entries.push({ token, ...(given ? { arguments: given } : {}) });
    if (!reader.takes(",")) return;
  }
}

/** Reads parameters in parentheses. */
export function readParameters(reader: Reader): ParameterText[] {
  const [from, to] = reader.skipBrackets();
  const inner = reader.from(from, to);
  const found: ParameterText[] = [];
  while (!inner.isAtEnd) {
    readModifiers(inner);
    const isProperty = inner.takes("val") || inner.takes("var");
    const name = inner.name()?.text ?? "";
    const type = inner.takes(":") ? readType(inner) : undefined;
    const hasDefault = inner.takes("=");
    const start = inner.at;
    skipToComma(inner);
    found.push({ name, type, hasDefault, isProperty, ...(hasDefault ? { initial: [start, inner.at] } : {}) });
    if (!inner.takes(",")) break;
  }
  return found;
}

function skipToComma(reader: Reader): void {
  while (!reader.isAtEnd && !reader.is(",")) {
    if (reader.is("(") || reader.is("[") || reader.is("{")) reader.skipBrackets();
    else reader.next();
  }
}

/** Skips the expression at the end of a declaration, up to a line that begins another declaration. */
function skipExpression(reader: Reader): void {
  while (!reader.isAtEnd) {
    const { startsLine, kind, text } = reader.token;
    if (startsLine && (text === "@" || (kind === "name" && beginsDeclaration(reader)))) return;
    if (kind === "symbol" && (text === "}" || text === "," || text === ")")) return;
    if (kind === "symbol" && text === "{" && startsLine) return;
    if (reader.is("(") || reader.is("[") || reader.is("{")) reader.skipBrackets();
    else reader.next();
  }
}

function beginsDeclaration(reader: Reader): boolean {
  const before = reader.at;
  readModifiers(reader);
  const { kind, text } = reader.token;
  const isAccessor = (text === "get" || text === "set") && reader.peek(1).text === "(";
  const found = kind === "name" && (declaring.has(text) || isAccessor);
  reader.at = before;
  return found;
}

function readFunction(reader: Reader): FunctionText {
  reader.next();
  const start = reader.at;
  const typeParameters = readTypeParameters(reader);
  const bounds = new Map<string, TypeText>();
  const boundsUpTo = (from: number): void => {
    typeBounds(reader.from(from, reader.at), { words: ["in", "out", "reified"], readType }, bounds);
  };
  boundsUpTo(Math.min(start + 1, reader.at));
  const { receiver, name } = readReceiver(reader);
  const parameters = reader.is("(") ? readParameters(reader) : [];
  const result = reader.takes(":") ? readType(reader) : undefined;
  if (reader.takes("where")) {
    const from = reader.at;
    while (!reader.isAtEnd && !reader.is("{") && !reader.is("=")) reader.next();
    boundsUpTo(from);
  }
  const body = readBody(reader);
  return {
    name,
    typeParameters,
    ...(bounds.size > 0 ? { bounds } : {}),
    receiver,
    parameters,
    result,
    ...(body ? { body } : {}),
  };
}

function readBody(reader: Reader): { readonly range: Range; readonly isExpression: boolean } | undefined {
  if (reader.takes("=")) {
    const from = reader.at;
    skipExpression(reader);
    return { range: [from, reader.at], isExpression: true };
  }
  return reader.is("{") ? { range: reader.skipBrackets(), isExpression: false } : undefined;
}

/** `Receiver.name`, where the receiver can have type arguments and parts. */
function readReceiver(reader: Reader): { readonly receiver: TypeText | undefined; readonly name: string } {
  const start = reader.at;
  let last = -1;
  let depth = 0;
  for (let at = start; ; at++) {
    const { kind, text, startsLine } = reader.from(at).token;
    if (kind === "end" || (depth === 0 && at > start && startsLine && text !== ".")) break;
    if (text === "<") depth++;
    if (text === ">") depth--;
    if (depth === 0 && (text === "(" || text === ":" || text === "=" || text === "by" || text === "{")) break;
    if (depth === 0 && (text === "." || text === "?.") && kind === "symbol") last = at;
  }
  if (last < 0) return { receiver: undefined, name: reader.name()?.text ?? "" };
  const receiver = readType(reader.from(start, last));
  const isNullable = reader.from(last).token.text === "?.";
  reader.at = last + 1;
  return {
    receiver: receiver && isNullable ? { ...receiver, isNullable: true } : receiver,
    name: reader.name()?.text ?? "",
  };
}

function readProperty(reader: Reader): PropertyText {
  reader.next();
  readTypeParameters(reader);
  const { receiver, name } = readReceiver(reader);
  const type = reader.takes(":") ? readType(reader) : undefined;
  const isDelegated = reader.is("by");
  let initial: Range | undefined;
  if (reader.takes("=") || reader.takes("by")) {
    const from = reader.at;
    skipExpression(reader);
    initial = [from, reader.at];
  }
  let getter: PropertyText["getter"];
  for (;;) {
    const before = reader.at;
    readModifiers(reader);
    const { text } = reader.token;
    if (
      (text !== "get" && text !== "set") ||
      (reader.peek(1).text !== "(" && reader.at === before && !reader.token.startsLine)
    ) {
      reader.at = before;
      break;
    }
    reader.next();
    if (!reader.is("(")) break;
    reader.skipBrackets();
    if (reader.takes(":")) readType(reader);
    const body = readBody(reader);
    if (text === "get" && body) getter = body;
  }
  return { name, receiver, type, isDelegated, ...(initial ? { initial } : {}), ...(getter ? { getter } : {}) };
}
