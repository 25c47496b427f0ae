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
import { typeBounds } from "../../source/typeArguments.js";
import type { TypeText } from "../../source/typeText.js";
import { readEffects, readType, readTypeParameters } from "./readType.js";
import { tokensOf } from "./tokens.js";

/**
 * Reads a file's declarations. Bodies are stored as ranges of tokens. A declaration in an extension belongs to the
 * extended type: functions and properties have it as their receiver, and types its name before their own. A file with
 * statements of its own is one range with everything.
 *
 * @param document the name of the file
 * @param isSdk whether it is a file of an SDK
 */
export function readSource(document: string, text: string, isSdk: boolean): SourceFile {
  const tokens = tokensOf(text);
  const declared = readDeclarations(new Reader(tokens), isSdk);
  return { document, tokens, package: "", imports: new Map(), stars: [], isSdk, declared };
}

const modifiers = new Set(
  (
    "public private internal fileprivate open package static final lazy weak unowned mutating nonmutating override required convenience " +
    "indirect dynamic optional nonisolated isolated async distributed prefix postfix infix borrowing consuming sending"
  ).split(" "),
);
const kinds = new Set(["class", "struct", "enum", "actor", "protocol", "extension"]);
const declaring = new Set([
  ...kinds,
  ...["func", "var", "let", "typealias", "init", "deinit", "subscript", "case", "import", "associatedtype"],
  ...["operator", "precedencegroup", "macro"],
]);

function empty(): Declarations {
  return { classes: [], functions: [], properties: [], aliases: [], initial: [] };
}

function readDeclarations(reader: Reader, isSdk: boolean): Declarations {
  const found = empty();
  let isScript = false;
  while (!reader.isAtEnd)
    if (!readDeclaration(reader, found, isSdk)) {
      isScript = true;
      skipExpression(reader);
    }
  if (isScript && !isSdk) found.initial.push([0, reader.tokens.length]);
  return found;
}

/**
 * Reads one declaration, if there is one.
 *
 * @param found extended in place
 * @returns whether there was one
 */
export function readDeclaration(reader: Reader, found: Declarations, isSdk = false): boolean {
  const before = reader.at;
  readModifiers(reader);
  const supplied = suppliedType(reader.from(before, reader.at));
  const { kind, text } = reader.token;
  if (kind !== "name" || reader.token.isQuoted === true || !declaring.has(text)) {
    reader.at = before;
    return false;
  }
  if (text === "extension") readExtension(reader, found, isSdk);
  else if (kinds.has(text)) found.classes.push(readClass(reader, isSdk));
  else if (text === "func") found.functions.push(readFunction(reader));
  else if (text === "var" || text === "let") readProperties(reader, found.properties, supplied);
  else if (text === "init") readMaker(reader, found);
  else if (text === "subscript") found.functions.push(readSubscript(reader));
  else if (text === "typealias" || text === "associatedtype") {
    reader.next();
    const name = reader.name()?.text ?? "";
    const parameters = readTypeParameters(reader);
    if (reader.takes(":")) readType(reader);
    const type = reader.takes("=") ? readType(reader) : undefined;
    if (type && text === "typealias") found.aliases.push({ name, parameters, type });
  } else if (text === "deinit") {
    reader.next();
    if (reader.is("{")) found.initial.push(reader.skipBrackets());
  } else if (text === "case" && "entries" in found) readCases(reader, found as ClassText);
  else if (text === "case") {
    reader.at = before;
    return false;
  } else skipExpression(reader);
  return true;
}

/** Skips modifiers and attributes, and returns the modifiers. */
export function readModifiers(reader: Reader): Set<string> {
  const words = new Set<string>();
  for (;;) {
    const { kind, text } = reader.token;
    const next = reader.peek(1);
    if (reader.is("@")) skipAttribute(reader);
    else if (
      kind === "name" &&
      reader.token.isQuoted !== true &&
      (modifiers.has(text) || (text === "class" && ["func", "var", "let", "subscript"].includes(next.text))) &&
      (next.text === "@" ||
        next.text === "(" ||
        (next.kind === "name" && (modifiers.has(next.text) || declaring.has(next.text))))
    ) {
      words.add(text);
      reader.next();
      // `private(set)`
      if (reader.is("(")) reader.skipBrackets();
    } else return words;
  }
}

function skipAttribute(reader: Reader): void {
  reader.next();
  readType(reader);
  if (reader.is("(") && !reader.token.startsLine) reader.skipBrackets();
}

function readClass(reader: Reader, isSdk: boolean): ClassText {
  const word = reader.next().text;
  const name = reader.name()?.text ?? "";
  const typeParameters = readTypeParameters(reader);
  const supers = readSupers(reader);
  const isChoice = supers.some(({ path }) => path.at(-1)?.text === "RawRepresentable");
  const parameters: ParameterText[] = [];
  const found: ClassText = {
    name,
    kind: word === "enum" ? "enum" : word === "protocol" ? "interface" : "class",
    isData: isSdk && word === "struct" && !isChoice,
    typeParameters,
    parameters,
    supers,
    superArguments: [],
    entries: [],
    companions: [],
    makers: [],
    classes: [],
    functions: [],
    properties: [],
    aliases: [],
    initial: [],
  };
  if (reader.is("{")) {
    const inner = reader.from(...reader.skipBrackets());
    while (!inner.isAtEnd) if (!readDeclaration(inner, found, isSdk)) inner.next();
  }
  const [maker] = found.makers ?? [];
  // An initialiser in an SDK has the same parameters as the compiler's own.
  if (maker && isSdk) parameters.push(...maker.parameters.map((each) => ({ ...each, isProperty: found.isData })));
  else
    for (const each of found.properties)
      if (word === "struct" && each.getter === undefined)
        parameters.push({
          name: each.name,
          type: each.type,
          hasDefault: each.initial !== undefined || each.type?.isNullable === true,
          isProperty: isSdk && !isChoice,
        });
  return found;
}

function readSupers(reader: Reader): TypeText[] {
  const supers: TypeText[] = [];
  if (reader.takes(":"))
    do {
      const type = readType(reader);
      if (!type) break;
      supers.push(type);
    } while (reader.takes(","));
  while (!reader.isAtEnd && !reader.is("{")) reader.next();
  return supers;
}

function readExtension(reader: Reader, found: Declarations, isSdk: boolean): void {
  reader.next();
  const written = readType(reader);
  const start = reader.at;
  while (!reader.isAtEnd && !reader.is("{")) reader.next();
  const receiver = written && withElement(written, reader.from(start, reader.at));
  if (!reader.is("{")) return;
  const inner = reader.from(...reader.skipBrackets());
  const own = empty();
  while (!inner.isAtEnd) if (!readDeclaration(inner, own, isSdk)) inner.next();
  const prefix = receiver?.path.map(({ text }) => text).join(".") ?? "";
  for (const each of own.classes) found.classes.push({ ...each, name: `${prefix}.${each.name}` });
  for (const each of own.aliases) found.aliases.push({ ...each, name: `${prefix}.${each.name}` });
  for (const each of own.functions) found.functions.push({ ...each, receiver, isInside: true });
  for (const each of own.properties) found.properties.push({ ...each, receiver, isInside: true });
}

/** `extension Array where Element == Berth` extends lists of berths. */
function withElement(type: TypeText, clause: Reader): TypeText {
  if (type.arguments.length > 0) return type;
  while (!clause.isAtEnd) {
    const { text } = clause.next();
    if ((text === "Element" || text === "Wrapped") && clause.takes("==")) {
      const element = readType(clause);
      return text === "Wrapped" && element ? { ...element, isNullable: true } : { ...type, arguments: [element] };
    }
  }
  return type;
}

function readCases(reader: Reader, into: ClassText): void {
  reader.next();
  do {
    const token = reader.name();
    if (!token) return;
    const parameters = reader.is("(") ? readParameters(reader) : [];
    into.entries.push({ token, parameters });
    if (reader.takes("=")) {
      reader.takes("-");
      reader.next();
    }
  } while (reader.takes(","));
}

/** Parameters in parentheses: `label name: Type = value`. */
function readParameters(reader: Reader): ParameterText[] {
  const inner = reader.from(...reader.skipBrackets());
  const found: ParameterText[] = [];
  while (!inner.isAtEnd) {
    const before = inner.at;
    while (inner.is("@")) skipAttribute(inner);
    const isTyped = inner.peek(1).text === ":" || inner.peek(2).text === ":";
    const label = isTyped ? inner.name()?.text : undefined;
    const inside = isTyped && inner.token.kind === "name" ? inner.next().text : label;
    if (isTyped) inner.takes(":");
    const type = readType(inner);
    const isMany = inner.takes("...");
    const hasDefault = inner.takes("=");
    const start = inner.at;
    skipToComma(inner);
    const name = label === undefined || label === "_" ? "" : label;
    found.push({
      name,
      ...(inside === undefined || inside === name ? {} : { inner: inside }),
      type:
        isMany && type
          ? { path: [{ ...inner.peek(-1), kind: "name", text: "Array" }], arguments: [type], isNullable: false }
          : type,
      hasDefault: hasDefault || isMany,
      isProperty: false,
      ...(hasDefault ? { initial: [start, inner.at] as const } : {}),
    });
    if (!inner.takes(",") && inner.at === before) inner.next();
  }
  return found;
}

/** Skips everything before the next comma. */
export function skipToComma(reader: Reader): void {
  while (!reader.isAtEnd && !reader.is(",")) {
    if (reader.is("(") || reader.is("[") || reader.is("{")) reader.skipBrackets();
    else reader.next();
  }
}

/** Skips an expression, up to a line that does not continue it. */
export function skipExpression(reader: Reader): void {
  let isFirst = true;
  while (!reader.isAtEnd) {
    if (!isFirst && reader.token.startsLine && !goesOn(reader)) return;
    if (reader.is("}") || (reader.is(",") && !isFirst)) return;
    if (reader.is("(") || reader.is("[") || reader.is("{")) reader.skipBrackets();
    else reader.next();
    isFirst = false;
  }
}

/** Returns whether a line continues the one before it. */
export function goesOn(reader: Reader): boolean {
  const { kind, text } = reader.token;
  const before = reader.peek(-1);
  if (before.kind === "symbol" && !/^[)\]}>?!]$/.test(before.text)) return true;
  if (kind === "name") return ["is", "as", "else", "catch", "where"].includes(text) && reader.token.isQuoted !== true;
  return kind === "symbol" && !/^[@#{([}\])\\&!-]$/.test(text);
}

/** The requirements after `where`: `T: Named`, `T.Element == Berth`. */
function readRequirements(reader: Reader, bounds: Map<string, TypeText>): void {
  do {
    const name = reader.name();
    if (!name) return;
    const isElement = reader.is(".") && reader.peek(1).text === "Element";
    while (reader.takes(".")) reader.name();
    if (!reader.takes("==") && !reader.takes(":")) return;
    const type = readType(reader);
    if (!type) return;
    const list: Omit<TypeText, "arguments"> = bounds.get(name.text) ?? {
      path: [{ ...name, text: "Array" }],
      isNullable: false,
    };
    bounds.set(name.text, isElement ? { ...list, arguments: [type] } : type);
  } while (reader.takes(","));
}

/** The name of an operator function: `func < (l: Self, r: Self)`, `func == <T>(l: T, r: T)`. */
function readOperator(reader: Reader): string {
  let name = reader.next().text;
  while (!reader.isAtEnd && !reader.is("(") && !(reader.is("<") && reader.peek(1).kind === "name"))
    name += reader.next().text;
  return name;
}

/** A subscript, whose parameters have a label only if it is written: `subscript(id id: String)`. */
function readSubscript(reader: Reader): FunctionText {
  const text = readFunction(reader);
  const parameters = text.parameters.map((each) =>
    each.inner === undefined ? { ...each, name: "", inner: each.name } : each,
  );
  return { ...text, parameters };
}

function readFunction(reader: Reader): FunctionText {
  const word = reader.next().text;
  let name = word;
  if (word === "func") {
    const named = reader.name();
    if (named) name = named.text;
    else name = readOperator(reader);
  } else if (reader.is("?") || reader.is("!")) reader.next();
  const start = reader.at;
  const typeParameters = readTypeParameters(reader);
  const bounds = new Map<string, TypeText>();
  typeBounds(reader.from(Math.min(start + 1, reader.at), reader.at), { words: ["each"], readType }, bounds);
  const parameters = reader.is("(") ? readParameters(reader) : [];
  const { failure } = readEffects(reader);
  const result = reader.takes("->") ? readType(reader) : undefined;
  if (reader.takes("where")) readRequirements(reader, bounds);
  const body = reader.is("{") ? { range: reader.skipBrackets(), isExpression: false } : undefined;
  return {
    name,
    typeParameters,
    ...(bounds.size > 0 ? { bounds } : {}),
    receiver: undefined,
    parameters,
    result,
    ...(failure ? { failure } : {}),
    ...(body ? { body } : {}),
  };
}

function readMaker(reader: Reader, found: Declarations): void {
  const made = readFunction(reader);
  if ("makers" in found) (found as ClassText).makers?.push(made);
  else found.functions.push(made);
}

/** One or several properties: `let a = 1, b: Int`. */
/** The type in `@Environment(Harbour.self)`, which is that of the property after it. */
function suppliedType(modifiers: Reader): TypeText | undefined {
  while (!modifiers.isAtEnd)
    if (modifiers.takes("@") && modifiers.takes("Environment") && modifiers.is("(")) {
      const type = readType(modifiers.from(...modifiers.skipBrackets()));
      const path = type?.path.slice(0, -1) ?? [];
      return type && path.length > 0 && type.path.at(-1)?.text === "self" ? { ...type, path } : undefined;
    } else modifiers.next();
  return undefined;
}

/** @param supplied the type of a property whose wrapper says it */
function readProperties(reader: Reader, found: PropertyText[], supplied?: TypeText): void {
  reader.next();
  do {
    if (reader.is("(")) {
      reader.skipBrackets();
      if (reader.takes("=")) skipExpression(reader);
      continue;
    }
    const name = reader.name()?.text ?? "";
    const type = reader.takes(":") ? readType(reader) : supplied;
    let initial: Range | undefined;
    if (reader.takes("=")) {
      const from = reader.at;
      skipInitial(reader);
      initial = [from, reader.at];
    }
    const accessors =
      reader.is("{") && (initial === undefined || hasAccessors(reader)) ? readAccessors(reader) : undefined;
    found.push({
      name,
      receiver: undefined,
      type,
      isDelegated: false,
      ...(initial ? { initial } : {}),
      ...(accessors?.getter ? { getter: { range: accessors.getter, isExpression: false } } : {}),
      ...(accessors ? { observers: accessors.others } : {}),
    });
  } while (reader.takes(","));
}

/** Skips an initial value, before accessors that may follow it. */
function skipInitial(reader: Reader): void {
  let isFirst = true;
  while (!reader.isAtEnd) {
    if (!isFirst && reader.token.startsLine && !goesOn(reader)) return;
    if (reader.is("}") || reader.is(",") || (reader.is("{") && hasAccessors(reader))) return;
    if (reader.is("(") || reader.is("[") || reader.is("{")) reader.skipBrackets();
    else reader.next();
    isFirst = false;
  }
}

const accessorWords = new Set(["get", "set", "willSet", "didSet", "_read", "_modify"]);

function hasAccessors(reader: Reader): boolean {
  const [first, second] = [reader.peek(1), reader.peek(2)];
  return accessorWords.has(first.text) && /^(?:\{|\(|async|throws|\}|get|set)$/.test(second.text);
}

function readAccessors(reader: Reader): { readonly getter: Range | undefined; readonly others: Range[] } {
  const isWritten = hasAccessors(reader) || reader.peek(1).text === "@" || reader.peek(1).text === "nonmutating";
  const range = reader.skipBrackets();
  if (!isWritten) return { getter: range, others: [] };
  const inner = reader.from(...range);
  let getter: Range | undefined;
  const others: Range[] = [];
  while (!inner.isAtEnd) {
    const { text } = inner.next();
    if (!accessorWords.has(text)) continue;
    if (inner.is("(")) inner.skipBrackets();
    readEffects(inner);
    // A protocol only declares that there is one.
    const body = inner.is("{") ? inner.skipBrackets() : undefined;
    if (text === "get" || text === "_read") getter = body ?? [inner.at, inner.at];
    else if (body) others.push(body);
  }
  return { getter, others };
}
