import { memberOf, printCoordinate, type Coordinate } from "../../../../core/use/coordinate.js";
import type { SourceUse, SourceUseKind } from "../../../../core/use/sourceUse.js";
import type { ClassText } from "../../source/declared.js";
import type { SdkSource, SourceText } from "../../source/sdkSource.js";
import { readSource } from "./declarations.js";
import { KotlinSdk } from "./kotlinSdk.js";

interface JavaToken {
  readonly text: string;
  readonly offset: number;
}

/** A place in Java source, with the coordinate that it uses. */
type Place = Pick<SourceUse, "coordinate" | "kind"> & { readonly token: JavaToken };

/**
 * Returns the uses in Java source next to an app's Kotlin. Named types and called functions are visible, but the object
 * of a getter is unknown, so every member with such a getter may be used. A file without a name of the SDK is skipped.
 */
export function javaUses(app: readonly SourceText[], sdk: SdkSource): SourceUse[] {
  // An SDK can be large, and most apps have no Java.
  if (app.length === 0) return [];
  const own = sdk.files.map(({ document, text }) => ({ file: readSource(document, text, true), text }));
  const namespace = own[0]?.file.package ?? "";
  const model = new KotlinSdk(sdk.connect, namespace, own);
  const names = new JavaNames(own, model);
  return app.flatMap(({ document, text }) =>
    placesIn(javaTokens(text), names, namespace).map(({ coordinate, kind, token }) => ({
      sdk: sdk.name,
      coordinate,
      kind,
      place: { document, offset: token.offset, length: token.text.length },
    })),
  );
}

/** Returns the full names that Java source imports, with the offset of each last part. */
export function javaImports(text: string): { readonly whole: string; readonly offset: number }[] {
  return importsOf(javaTokens(text)).flatMap(({ parts, token }) =>
    parts.at(-1) === "*" ? [] : [{ whole: parts.join("."), offset: token.offset }],
  );
}

/** The Java names of an SDK's parts. */
class JavaNames {
  /** Classes by name; nested ones by "Outer.Inner". */
  readonly classes = new Map<string, ClassText>();
  /** Classes for the functions of a file. */
  readonly facades = new Set<string>();
  /** Calls by the names of their functions. */
  readonly calls = new Map<string, string>();
  /** The coordinates of members by the name of their getter. */
  readonly getters = new Map<string, Coordinate[]>();

  constructor(
    files: readonly { readonly file: ReturnType<typeof readSource>; readonly text: string }[],
    readonly model: KotlinSdk,
  ) {
    for (const { file, text } of files) {
      const facade = /^@file:JvmName\("(\w+)"\)$/m.exec(text)?.[1];
      if (facade !== undefined) this.facades.add(facade);
      for (const { name, receiver } of file.declared.functions) if (receiver) this.calls.set(name, model.callOf(name));
      for (const each of file.declared.classes) this.add(each, "");
    }
  }

  private add(declared: ClassText, outer: string): void {
    const name = outer + declared.name;
    this.classes.set(name, declared);
    const properties = [
      ...declared.parameters.filter(({ isProperty }) => isProperty),
      ...declared.properties.filter(({ receiver }) => receiver === undefined),
    ];
    for (const { name: property } of properties) {
      const coordinate = memberOf(name, this.model.member(name, property));
      for (const method of accessors(property))
        this.getters.set(method, [...(this.getters.get(method) ?? []), coordinate]);
    }
    for (const each of declared.classes) this.add(each, `${name}.`);
  }
}

/** The Java names of a property: its getter and its setter. */
function accessors(property: string): string[] {
  if (/^is[^a-z]/.test(property)) return [property, `set${property.slice(2)}`];
  const name = property.charAt(0).toUpperCase() + property.slice(1);
  return [`get${name}`, `set${name}`];
}

function placesIn(tokens: readonly JavaToken[], names: JavaNames, namespace: string): Place[] {
  const found: Place[] = [];
  const tell = (coordinate: Coordinate, kind: SourceUseKind, token: JavaToken): void => {
    found.push({ coordinate, kind, token });
  };
  const imports = importsOf(tokens);
  const prefix = `${namespace}.`;
  const own = imports.map(({ parts }) => parts.join(".")).filter((whole) => whole.startsWith(prefix));
  const parts = namespace.split(".");
  const isWritten = (at: number): boolean => parts.every((part, step) => tokens[at + 2 * step]?.text === part);
  const writtenAt = tokens.flatMap((_, at) => (isWritten(at) ? [at + 2 * parts.length] : []));
  if (own.length === 0 && writtenAt.length === 0) return found;
  const imported = new Set(own.map((whole) => whole.slice(prefix.length)));
  const behindNamespace = new Set(writtenAt);
  const isKnown = (name: string): boolean => imported.has("*") || imported.has(name);
  const known = new Set<string>();
  tokens.forEach((token, at) => {
    const { text } = token;
    const before = tokens[at - 1]?.text;
    const isWhole = behindNamespace.has(at);
    if (names.classes.has(text) && (isWhole || (before !== "." && isKnown(text)))) {
      known.add(text);
      nameWithParts(at, tokens, { names, tell });
      if (before === "new") tell(printCoordinate(text, "anyMember"), "reaches", token);
    }
    const call = names.calls.get(text);
    const isCalled = tokens[at + 1]?.text === "(" || before === "::";
    if (call !== undefined && isCalled && isOfFacade(at, tokens, { javaNames: names, imported: [...imported] }))
      tell(printCoordinate(call), "calls", token);
    else if (isCalled) for (const each of names.getters.get(text) ?? []) tell(each, "reaches", token);
  });
  for (const { token } of imports.filter(({ parts: each }) => each.join(".").startsWith(prefix)))
    if (names.classes.has(token.text)) known.add(token.text);
  tellUnseen(tokens, { known, names }, tell);
  return found;
}

/** A class, and those inside it as far as they are written: "Outer.Inner". */
function nameWithParts(
  at: number,
  tokens: readonly JavaToken[],
  {
    names,
    tell,
  }: {
    readonly names: JavaNames;
    readonly tell: (coordinate: Coordinate, kind: SourceUseKind, token: JavaToken) => void;
  },
): void {
  let name = "";
  for (let next = at; ; next += 2) {
    const token = tokens[next];
    const longer = token && `${name === "" ? "" : `${name}.`}${token.text}`;
    if (!token || longer === undefined || !names.classes.has(longer)) return;
    tell(printCoordinate(longer), "names", token);
    name = longer;
    if (tokens[next + 1]?.text !== ".") return;
  }
}

/** Whether a name is that of a function in an SDK's file: after the file's class, or imported from there. */
function isOfFacade(
  at: number,
  tokens: readonly JavaToken[],
  { javaNames: { facades }, imported }: { readonly javaNames: JavaNames; readonly imported: readonly string[] },
): boolean {
  const text = tokens[at]?.text ?? "";
  const before = tokens[at - 1]?.text;
  if (before === "." || before === "::") return facades.has(tokens[at - 2]?.text ?? "");
  return imported.some((name) => {
    const [facade = "", member] = name.split(".");
    return facades.has(facade) && (member === text || member === "*");
  });
}

/**
 * The possible uses of the types that a file names: members by position, copies, constants, and the values of a switch.
 */
function tellUnseen(
  tokens: readonly JavaToken[],
  { known, names }: { readonly known: ReadonlySet<string>; readonly names: JavaNames },
  tell: (coordinate: Coordinate, kind: SourceUseKind, token: JavaToken) => void,
): void {
  tokens.forEach((token, at) => {
    const isCalled = tokens[at + 1]?.text === "(";
    const isUnseen =
      (isCalled && tokens[at - 1]?.text === "." && /^(?:component\d+|copy)$/.test(token.text)) ||
      token.text === "switch" ||
      token.text === "instanceof";
    for (const name of known) {
      if (isUnseen) tell(printCoordinate(name, "anyMember"), "reaches", token);
      const value = names.model.constant(name, token.text);
      if (value !== undefined) tell(memberOf(name, value), "reaches", token);
    }
  });
}

/** The imports of a file: the parts of each, and the last part. */
function importsOf(tokens: readonly JavaToken[]): { readonly parts: readonly string[]; readonly token: JavaToken }[] {
  return tokens.flatMap(({ text }, at) => {
    if (text !== "import" || !(at === 0 || [";", "}"].includes(tokens[at - 1]?.text ?? ""))) return [];
    let next = tokens[at + 1]?.text === "static" ? at + 2 : at + 1;
    const parts: string[] = [];
    for (; tokens[next] && tokens[next]?.text !== ";"; next++)
      if (tokens[next]?.text !== ".") parts.push(tokens[next]?.text ?? "");
    const token = tokens[next - 1];
    return token && parts.length > 0 ? [{ parts, token }] : [];
  });
}

/**
 * Comments, strings, names and symbols of Java (Java Language Specification, chapter 3). Comments do not nest there.
 */
const lexeme =
  /\/\/[^\n]*|\/\*[^]*?(?:\*\/|$)|"""[^]*?(?:"""|$)|"(?:\\.|[^"\\\n])*"?|'(?:\\.|[^'\\\n])*'?|[\p{L}_$][\p{L}\p{Nd}_$]*|::|[^\s]/gu;

function javaTokens(source: string): JavaToken[] {
  const found: JavaToken[] = [];
  for (const { 0: text, index } of source.matchAll(lexeme))
    if (!/^(?:\/[/*]|["'])/.test(text)) found.push({ text, offset: index });
  return found;
}
