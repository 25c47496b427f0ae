import ts from "typescript";
import { folder } from "./program.js";

/** What a line of the app does with the SDK. The last two are more than ordinary use. */
export type UseKind = "call" | "send" | "read" | "compare" | "name" | "match" | "build";

/** An app that uses everything in an SDK. */
export interface ExercisingApp {
  readonly text: string;
  /** The use of each line, from line 1. */
  readonly lines: ReadonlyMap<number, UseKind>;
}

/**
 * Writes an app that makes every call, sends every field and enum value, reads every response, compares every enum, and
 * names every type, from the compiler's view of an SDK. The program's knowledge of contracts is not used.
 *
 * @param index the SDK's module for one contract, relative to the program's folder
 * @param isNamed returns whether a type's name comes from the contract
 * @param hasOpenTags whether the tags of unions may have unknown values
 */
export function exercisingApp(
  program: ts.Program,
  index: string,
  isNamed: (name: string) => boolean,
  hasOpenTags = false,
): ExercisingApp {
  return new AppWriter(program, index, isNamed, hasOpenTags).written();
}

const mostVariants = 160;
const deepest = 5;
const deepestRead = 12;

class AppWriter {
  private readonly checker: ts.TypeChecker;
  private readonly out: string[] = [];
  private readonly kinds = new Map<number, UseKind>();
  private readonly readers = new Map<string, ts.Type>();
  private readonly pending: (() => void)[] = [];
  private readonly file: ts.SourceFile;
  private count = 0;

  constructor(
    program: ts.Program,
    private readonly index: string,
    private readonly isNamed: (name: string) => boolean,
    private readonly hasOpenTags: boolean,
  ) {
    this.checker = program.getTypeChecker();
    const file = program.getSourceFile(`${folder}/${index}`);
    if (!file) throw new Error(`no ${index}`);
    this.file = file;
  }

  written(): ExercisingApp {
    this.line(`import * as sdk from "./${this.index.replace(/\.ts$/, ".js")}";`);
    this.line("declare const text: string;");
    this.line("let count = 0;");
    const module = this.checker.getSymbolAtLocation(this.file);
    if (!module) throw new Error("no module");
    for (const exported of this.checker.getExportsOfModule(module)) this.exported(exported);
    for (let work = this.pending.shift(); work; work = this.pending.shift()) work();
    return { text: `${this.out.join("\n")}\n`, lines: this.kinds };
  }

  private line(text: string, kind?: UseKind): void {
    this.out.push(text.replaceAll("\n", " "));
    if (kind) this.kinds.set(this.out.length, kind);
  }

  private fresh(letter: string): string {
    return `${letter}${String(++this.count)}`;
  }

  private exported(exported: ts.Symbol): void {
    const symbol = exported.flags & ts.SymbolFlags.Alias ? this.checker.getAliasedSymbol(exported) : exported;
    const name = exported.name;
    if (symbol.flags & (ts.SymbolFlags.Interface | ts.SymbolFlags.TypeAlias)) {
      if (!this.isNamed(name)) return;
      this.line(`type ${this.fresh("T")} = sdk.${name};`, "name");
      const type = this.checker.getDeclaredTypeOfSymbol(symbol);
      for (const each of this.built(type))
        this.line(`export const ${this.fresh("f")}: sdk.${name} = ${each};`, "build");
      return;
    }
    if (!(symbol.flags & (ts.SymbolFlags.Function | ts.SymbolFlags.Variable))) return;
    const [signature] = this.checker.getTypeOfSymbolAtLocation(symbol, this.file).getCallSignatures();
    if (!signature) return;
    const parameters = signature.getParameters().map((each) => this.checker.getTypeOfSymbolAtLocation(each, this.file));
    const predicate = this.checker.getTypePredicateOfSignature(signature);
    const [first] = signature.getParameters();
    if (predicate?.type) this.guard(name, predicate.type);
    else if (first?.name === "connection") this.call(name, signature, parameters);
    else if (first?.name === "headers") this.headers(name, signature);
    else if (first?.name === "options") this.connect(name, parameters[0]);
  }

  private connect(name: string, options: ts.Type | undefined): void {
    if (!options) return;
    const least = this.least(options);
    this.line(`sdk.${name}(${least});`, "call");
    for (const property of this.checker.getPropertiesOfType(options)) {
      if (!["auth", "standing", "variables", "servers"].includes(property.name)) continue;
      const type = this.checker.getTypeOfSymbolAtLocation(property, this.file);
      for (const variant of this.variants(type, 0))
        this.line(`sdk.${name}({ ...${least}, ${property.name}: ${variant} });`, "call");
    }
  }

  private call(name: string, signature: ts.Signature, [, args]: readonly ts.Type[]): void {
    const connection = "{} as never";
    const least = args ? this.least(args) : "{}";
    this.line(`export async function ${this.fresh("call")}() {`);
    this.line(
      `  const answer = ${this.isList(signature.getReturnType()) ? "" : "await "}sdk.${name}(${connection}, ${least});`,
      "call",
    );
    // A response that depends on a type argument is read as little as an unknown value.
    const isAsked = (signature.getTypeParameters() ?? []).length > 0;
    if (!isAsked) this.read("answer", this.answered(signature.getReturnType()), 1);
    else this.line("  void answer;");
    this.line("}");
    const answer = this.answered(signature.getReturnType());
    if (!isAsked && !this.isList(answer) && this.ownName(answer) === undefined)
      for (const each of this.built(answer))
        this.line(`export const ${this.fresh("f")}: Awaited<ReturnType<typeof sdk.${name}>> = ${each};`, "build");
    if (!args) return;
    for (const variant of this.variants(args, 0).slice(0, mostVariants))
      if (variant !== least) this.line(`sdk.${name}(${connection}, ${variant});`, "send");
  }

  private headers(name: string, signature: ts.Signature): void {
    this.line(`export function ${this.fresh("head")}(headers: Headers) {`);
    this.line(`  const answer = sdk.${name}(headers);`, "call");
    this.read("answer", signature.getReturnType(), 1);
    this.line("}");
  }

  private guard(name: string, type: ts.Type): void {
    this.line(`export function ${this.fresh("guard")}(error: unknown) {`);
    this.line(`  if (sdk.${name}(error)) {`, "call");
    for (const member of type.isUnion() ? type.types : [type]) {
      const status = member.getProperty("status");
      const value = status && this.checker.getTypeOfSymbolAtLocation(status, this.file);
      if (!value?.isNumberLiteral()) continue;
      this.line(`    if (error.status === ${String(value.value)}) {`, "compare");
      const body = member.getProperty("body");
      if (body) this.read("error.body", this.checker.getTypeOfSymbolAtLocation(body, this.file), 1);
      this.line("    }");
    }
    const all = (type.isUnion() ? type.types : [type]).flatMap((member) => {
      const status = member.getProperty("status");
      return status ? this.checker.typeToString(this.checker.getTypeOfSymbolAtLocation(status, this.file)) : [];
    });
    this.line(`    const ${this.fresh("m")}: ${all.join(" | ")} = error.status;`, "match");
    this.line("  }");
    this.line("}");
  }

  private isList(type: ts.Type): boolean {
    return this.checker
      .getPropertiesOfType(type)
      .some(({ escapedName }) => String(escapedName).startsWith("__@asyncIterator"));
  }

  private answered(type: ts.Type): ts.Type {
    return this.isList(type) ? type : (this.checker.getAwaitedType(type) ?? type);
  }

  // Reading

  /** @param isOptional whether the value may be absent, which its type does not show */
  private read(expression: string, type: ts.Type, depth: number, isOptional = false): void {
    if (depth > deepestRead) return;
    const { flags } = type;
    if (flags & (ts.TypeFlags.Unknown | ts.TypeFlags.Any | ts.TypeFlags.Never | ts.TypeFlags.Void)) {
      this.line(`  const ${this.fresh("u")}: unknown = ${expression};`, "read");
      return;
    }
    const leaf = this.leafText(type);
    if (leaf !== undefined && this.isMixed(type)) {
      this.readMixed(expression, type, isOptional, leaf);
      return;
    }
    if (leaf !== undefined) {
      this.line(`  const ${this.fresh("r")}: ${leaf}${isOptional ? " | undefined" : ""} = ${expression};`, "read");
      this.compared(expression, type, isOptional);
      return;
    }
    if (isOptional) {
      const value = this.fresh("o");
      this.line(`  const ${value} = ${expression};`, "read");
      this.line(`  if (${value} !== undefined) {`, "read");
      this.read(value, type, depth + 1);
      this.line("  }");
      return;
    }
    if (type.isUnion()) {
      this.readUnion(expression, type, depth);
      return;
    }
    const name = this.ownName(type);
    if (name !== undefined) {
      if (!this.readers.has(name)) this.reader(name, type);
      this.line(`  use${name}(${expression});`, "read");
      return;
    }
    this.readObject(expression, type, depth);
  }

  /** A function that reads a named type once, however many responses contain it. */
  private reader(name: string, type: ts.Type): void {
    this.readers.set(name, type);
    this.pending.push(() => {
      this.line(`function use${name}(value: sdk.${name}): void {`, "name");
      this.readObject("value", type, 1);
      this.line("  void value;");
      this.line("}");
    });
  }

  private readObject(expression: string, type: ts.Type, depth: number, known?: string): void {
    if (type.isUnion()) {
      this.readUnion(expression, type, depth);
      return;
    }
    if (this.isList(type)) {
      const [item] = this.checker.getTypeArguments(type as ts.TypeReference);
      const each = this.fresh("e");
      this.line(`  for await (const ${each} of ${expression}) {`, "read");
      if (item) this.read(each, item, depth + 1);
      this.line("  }");
      return;
    }
    if (this.checker.isTupleType(type)) {
      this.checker.getTypeArguments(type as ts.TypeReference).forEach((item, at) => {
        const flags = (type as ts.TupleTypeReference).target.elementFlags[at] ?? 0;
        if (flags & ts.ElementFlags.Required) this.read(`${expression}[${String(at)}]`, item, depth + 1);
      });
      return;
    }
    if (this.checker.isArrayType(type)) {
      const [item] = this.checker.getTypeArguments(type as ts.TypeReference);
      const each = this.fresh("e");
      this.line(`  for (const ${each} of ${expression}) {`, "read");
      if (item) this.read(each, item, depth + 1);
      this.line("  }");
      return;
    }
    const index = this.checker.getIndexTypeOfType(type, ts.IndexKind.String);
    if (index) {
      const value = this.fresh("v");
      this.line(`  const ${value} = ${expression}[text];`, "read");
      this.line(`  if (${value} !== undefined) {`, "read");
      this.read(value, this.checker.getNonNullableType(index) === index ? index : index, depth + 1);
      this.line("  }");
    }
    for (const property of this.checker.getPropertiesOfType(type)) {
      const inner = this.checker.getTypeOfSymbolAtLocation(property, this.file);
      if (inner.getCallSignatures().length > 0 || ["stack", "cause", known].includes(property.name)) continue;
      const isOptional = (property.flags & ts.SymbolFlags.Optional) !== 0;
      this.read(`${expression}${access(property.name)}`, inner, depth + 1, isOptional);
    }
  }

  private readUnion(expression: string, type: ts.UnionType, depth: number): void {
    const whole = this.checker.getNonNullableType(type);
    const value = this.fresh("o");
    this.line(`  const ${value} = ${expression};`, "read");
    if (whole !== type) {
      const undefinedOnly = !type.types.some((each) => each.flags & ts.TypeFlags.Null);
      const nullOnly = !type.types.some((each) => each.flags & ts.TypeFlags.Undefined);
      const test = undefinedOnly ? "!== undefined" : nullOnly ? "!== null" : "!= null";
      this.line(`  if (${value} ${test}) {`, "read");
      this.read(value, whole, depth + 1);
      this.line("  }");
      return;
    }
    const primitives = type.types.filter((each) => this.leafText(each) !== undefined);
    const objects = type.types.filter((each) => !primitives.includes(each));
    for (const kind of ["string", "number", "boolean"]) {
      const mine = primitives.filter((each) => widened(each) === kind);
      if (mine.length === 0) continue;
      this.line(`  if (typeof ${value} === "${kind}") {`, "read");
      this.line(`    const ${this.fresh("r")}: ${kind} = ${value};`, "read");
      this.line("  }");
    }
    const lists = objects.filter((each) => this.checker.isArrayType(each) || this.checker.isTupleType(each));
    const records = objects.filter((each) => !lists.includes(each));
    for (const list of lists.slice(0, 1)) {
      this.line(`  if (Array.isArray(${value})) {`, "read");
      if (lists.length === 1) this.read(value, list, depth + 1);
      this.line("  }");
    }
    if (records.length === 0) return;
    const isMixed = primitives.length > 0 || lists.length > 0;
    const record = isMixed ? this.fresh("o") : value;
    if (isMixed) {
      this.line(
        `  if (typeof ${value} === "object"${lists.length > 0 ? ` && !Array.isArray(${value})` : ""}) {`,
        "read",
      );
      this.line(`    const ${record} = ${value};`, "read");
    }
    this.readRecords(record, records, depth);
    if (isMixed) this.line("  }");
  }

  private readRecords(value: string, records: readonly ts.Type[], depth: number): void {
    const [first, ...others] = records;
    if (!first) return;
    if (others.length === 0) {
      this.read(value, first, depth + 1);
      return;
    }
    const names = this.checker.getPropertiesOfType(first).map(({ name }) => name);
    const common = names.filter((name) => others.every((each) => each.getProperty(name)));
    const typeOf = (record: ts.Type, name: string): ts.Type | undefined => {
      const property = record.getProperty(name);
      return property && this.checker.getTypeOfSymbolAtLocation(property, this.file);
    };
    const literals = (record: ts.Type, name: string): string[] | undefined => {
      const own = typeOf(record, name);
      const members = own?.isUnion() === true ? own.types : own ? [own] : [];
      const values = members.filter((each) => !(each.flags & ts.TypeFlags.EnumLike));
      return values.every((each) => each.isStringLiteral()) ? values.map((each) => each.value) : undefined;
    };
    const tag = common.find((name) => {
      const values = records.map((record) => literals(record, name));
      return values.every((each) => each !== undefined) && new Set(values.flat()).size > 1;
    });
    const isOpen = tag !== undefined && records.some((record) => (literals(record, tag) ?? []).length === 0);
    for (const name of common) {
      const leaves = new Set(records.map((record) => this.leafText(typeOf(record, name) ?? record)));
      const [leaf] = leaves;
      if (leaves.size === 1 && leaf !== undefined)
        this.line(`  const ${this.fresh("r")}: ${leaf} = ${value}${access(name)};`, "read");
    }
    for (const record of records) {
      const [own] = tag === undefined ? [] : (literals(record, tag) ?? []);
      const rare = this.checker
        .getPropertiesOfType(record)
        .find(
          ({ name }) =>
            others.every((each) => each === record || !each.getProperty(name)) &&
            (record === first || !first.getProperty(name)),
        );
      if (tag !== undefined && own !== undefined)
        this.line(`  if (${value}${access(tag)} === ${JSON.stringify(own)}) {`, "compare");
      else if (rare) this.line(`  if (${JSON.stringify(rare.name)} in ${value}) {`, "read");
      else continue;
      this.readObject(value, record, depth + 1, tag);
      this.line("  }");
    }
    if (tag === undefined) return;
    const values = [...new Set(records.flatMap((record) => literals(record, tag) ?? []))].map((each) =>
      JSON.stringify(each),
    );
    for (const each of values) this.line(`  if (${value}${access(tag)} === ${each}) count++;`, "compare");
    if (!isOpen) this.line(`  const ${this.fresh("m")}: ${values.join(" | ")} = ${value}${access(tag)};`, "match");
  }

  private isMixed(type: ts.Type): boolean {
    const kinds = new Set((type.isUnion() ? type.types : [type]).map((each) => widened(each) ?? ""));
    return [...kinds].filter((kind) => kind !== "null" && kind !== "undefined").length > 1;
  }

  /** A string or a number: distinguished before it is used. */
  private readMixed(expression: string, type: ts.Type, isOptional: boolean, leaf: string): void {
    const value = this.fresh("o");
    this.line(`  const ${value} = ${expression};`, "read");
    for (const kind of ["string", "number", "boolean"]) {
      if (!leaf.includes(kind)) continue;
      this.line(`  if (typeof ${value} === "${kind}") {`, "read");
      this.line(`    const ${this.fresh("r")}: ${kind} = ${value};`, "read");
      this.line("  }");
    }
    this.line(`  const ${this.fresh("m")}: ${leaf}${isOptional ? " | undefined" : ""} = ${value};`, "match");
    this.compared(value, type, isOptional);
  }

  /** Compares an enum with each of its values, and matches it as a whole. */
  private compared(expression: string, type: ts.Type, isOptional: boolean): void {
    const members = type.isUnion() ? type.types : [type];
    const literals = members.filter((each): boolean => each.isStringLiteral() || each.isNumberLiteral());
    if (literals.length === 0) return;
    const value = this.fresh("c");
    this.line(`  const ${value} = ${expression};`, "read");
    const texts = literals.map((each) => JSON.stringify((each as ts.LiteralType).value));
    for (const text of texts) this.line(`  if (${value} === ${text}) count++;`, "compare");
    const isOpen = members.some((each) => each.flags & ts.TypeFlags.Intersection);
    const others = members.filter((each) => !literals.includes(each)).map((each) => this.checker.typeToString(each));
    if (isOptional) others.push("undefined");
    // A tag of an open union can have more than its current values.
    const isTag = this.hasOpenTags && expression.endsWith(".__typename");
    if (!isOpen && !isTag)
      this.line(`  const ${this.fresh("m")}: ${[...texts, ...others].join(" | ")} = ${value};`, "match");
  }

  /** A type without parts, as developers would write it; undefined for others. */
  private leafText(type: ts.Type): string | undefined {
    const members = type.isUnion() ? type.types : [type];
    const texts = new Set<string>();
    for (const each of members) {
      const text = widened(each) ?? this.globalName(each);
      if (text === undefined) return undefined;
      texts.add(text);
    }
    return [...texts].join(" | ");
  }

  private globalName(type: ts.Type): string | undefined {
    const { name } = (type as { readonly symbol?: ts.Symbol }).symbol ?? {};
    return name !== undefined && name in platformValues ? name : undefined;
  }

  private ownName(type: ts.Type): string | undefined {
    const { name } = type.aliasSymbol ?? (type as { readonly symbol?: ts.Symbol }).symbol ?? {};
    return name !== undefined && this.isNamed(name) ? name : undefined;
  }

  // Sending

  /** A value with only its required parts. */
  private least(type: ts.Type, depth = 0, open: readonly ts.Type[] = []): string {
    if (type.isUnion()) {
      const kinds = [...type.types].sort((a, b) => rank(a) - rank(b));
      const [first] = kinds.filter((each) => !open.includes(each));
      return first ? this.least(first, depth, open) : "null as never";
    }
    const { flags } = type;
    // A type that the schema does not have yet cannot be written.
    if (flags & ts.TypeFlags.EnumLike) return "null as never";
    if (type.isStringLiteral() || type.isNumberLiteral()) return JSON.stringify(type.value);
    if (flags & ts.TypeFlags.BooleanLiteral) return this.checker.typeToString(type);
    if (flags & ts.TypeFlags.String) return '"text"';
    if (flags & ts.TypeFlags.Number) return "1";
    if (flags & ts.TypeFlags.BigInt) return "1n";
    if (flags & ts.TypeFlags.Boolean) return "true";
    if (flags & ts.TypeFlags.Null) return "null";
    if (flags & (ts.TypeFlags.Undefined | ts.TypeFlags.Void)) return "undefined";
    if (flags & (ts.TypeFlags.Unknown | ts.TypeFlags.Any)) return '"anything"';
    // The type that keeps an enum open accepts any value of its type.
    if (type.isIntersection() && widened(type) !== undefined) return widened(type) === "string" ? '"text"' : "1";
    const name = this.globalName(type);
    if (name !== undefined) return platformValues[name] ?? "null as never";
    if (depth > 8) return "null as never";
    if (this.checker.isTupleType(type)) {
      const target = (type as ts.TupleTypeReference).target;
      const items = this.checker
        .getTypeArguments(type as ts.TypeReference)
        .filter((_, at) => (target.elementFlags[at] ?? 0) & ts.ElementFlags.Required);
      return `[${items.map((item) => this.least(item, depth + 1, open)).join(", ")}]`;
    }
    if (this.checker.isArrayType(type)) return "[]";
    if (type.getCallSignatures().length > 0) return "() => ({}) as never";
    const inside = [...open, type];
    const fields = this.checker
      .getPropertiesOfType(type)
      .filter((property) => !(property.flags & ts.SymbolFlags.Optional))
      .map((property) => {
        const inner = this.checker.getTypeOfSymbolAtLocation(property, this.file);
        return `${JSON.stringify(property.name)}: ${this.least(inner, depth + 1, inside)}`;
      });
    return `{ ${fields.join(", ")} }`;
  }

  /** The value that a test would build: only the required parts, with each variant of a part. */
  private built(type: ts.Type): string[] {
    const least = this.least(type);
    const isPlain = (each: ts.Type): boolean =>
      (each.flags & (ts.TypeFlags.Null | ts.TypeFlags.Undefined)) === 0 && !each.isIntersection();
    const kindsOf = (each: ts.Type): ts.Type[] => {
      const members = each.isUnion() ? each.types.filter(isPlain) : [];
      const isChoice = members.every(
        (member) => member.flags & ts.TypeFlags.Literal || member.flags & ts.TypeFlags.BooleanLiteral,
      );
      return isChoice ? [] : members;
    };
    if (type.isUnion()) return kindsOf(type).length > 0 ? kindsOf(type).map((each) => this.least(each)) : [least];
    if (this.leafText(type) !== undefined || this.checker.isArrayType(type) || this.checker.isTupleType(type))
      return [least];
    const required = this.checker
      .getPropertiesOfType(type)
      .filter((property) => !(property.flags & ts.SymbolFlags.Optional));
    const fields = required.map((each) => [
      each.name,
      this.least(this.checker.getTypeOfSymbolAtLocation(each, this.file)),
    ]);
    const more = this.checker.getPropertiesOfType(type).flatMap((property) =>
      kindsOf(this.checker.getTypeOfSymbolAtLocation(property, this.file)).map((kind) => {
        const others = fields.filter(([name]) => name !== property.name);
        const all = [...others, [property.name, this.least(kind)]];
        return `{ ${all.map(([name, value]) => `${JSON.stringify(name)}: ${value ?? ""}`).join(", ")} }`;
      }),
    );
    const whole = this.checker.getPropertiesOfType(type).map((property) => {
      const value = this.least(this.checker.getTypeOfSymbolAtLocation(property, this.file));
      return `${JSON.stringify(property.name)}: ${value}`;
    });
    return [least, `{ ${whole.join(", ")} }`, ...more];
  }

  /** Values that each have one part more than the smallest one. */
  private variants(type: ts.Type, depth: number): string[] {
    if (depth > deepest || type.flags & ts.TypeFlags.Never) return [];
    if (type.flags & ts.TypeFlags.TypeParameter) {
      const allowed = this.checker.getBaseConstraintOfType(type);
      return allowed ? this.variants(allowed, depth) : [];
    }
    if (type.isUnion())
      return type.types.flatMap((each) =>
        each.flags & ts.TypeFlags.Undefined || each.isIntersection() ? [] : this.variants(each, depth),
      );
    const isLeaf = this.leafText(type) !== undefined || type.flags & (ts.TypeFlags.Unknown | ts.TypeFlags.Any);
    if (isLeaf) return [this.least(type)];
    if (this.checker.isTupleType(type)) {
      const items = this.checker.getTypeArguments(type as ts.TypeReference);
      const least = items.map((item) => this.least(item));
      return [
        `[${least.join(", ")}]`,
        ...items.flatMap((item, at) =>
          this.variants(item, depth + 1).map(
            (variant) => `[${least.map((each, other) => (other === at ? variant : each)).join(", ")}]`,
          ),
        ),
      ];
    }
    if (this.checker.isArrayType(type)) {
      const [item] = this.checker.getTypeArguments(type as ts.TypeReference);
      return item ? ["[]", ...this.variants(item, depth + 1).map((variant) => `[${variant}]`)] : ["[]"];
    }
    if (type.getCallSignatures().length > 0) return [];
    const properties = this.checker.getPropertiesOfType(type);
    const required = properties.filter((property) => !(property.flags & ts.SymbolFlags.Optional));
    const fieldOf = (property: ts.Symbol, value: string): string => `${JSON.stringify(property.name)}: ${value}`;
    const typeOf = (property: ts.Symbol): ts.Type => this.checker.getTypeOfSymbolAtLocation(property, this.file);
    const values = properties.flatMap((property) =>
      this.variants(typeOf(property), depth + 1).map((variant) => {
        const others = required
          .filter((each) => each !== property)
          .map((each) => fieldOf(each, this.least(typeOf(each), depth + 1)));
        return `{ ${[...others, fieldOf(property, variant)].join(", ")} }`;
      }),
    );
    const index = this.checker.getIndexTypeOfType(type, ts.IndexKind.String);
    const base = required.map((each) => fieldOf(each, this.least(typeOf(each), depth + 1)));
    const keyed =
      index && !(index.flags & ts.TypeFlags.Never)
        ? this.variants(index, depth + 1).map((variant) => `{ ${[...base, `"other key": ${variant}`].join(", ")} }`)
        : [];
    return [`{ ${base.join(", ")} }`, ...values, ...keyed];
  }
}
/** Types of the platform in an SDK, each with a value. */
const platformValues: Readonly<Record<string, string>> = {
  Date: "new Date(0)",
  Blob: "new Blob([])",
  ArrayBuffer: "new ArrayBuffer(0)",
  Uint8Array: "new Uint8Array()",
};

function widened(type: ts.Type): string | undefined {
  const { flags } = type;
  if (flags & ts.TypeFlags.StringLike) return "string";
  if (flags & ts.TypeFlags.NumberLike) return "number";
  if (flags & ts.TypeFlags.BooleanLike) return "boolean";
  if (flags & ts.TypeFlags.BigIntLike) return "bigint";
  if (flags & ts.TypeFlags.Null) return "null";
  if (flags & ts.TypeFlags.Undefined) return "undefined";
  // The type that keeps an enum open: any string or number, intersected with an empty object.
  if (type.isIntersection()) return type.types.map(widened).find((each) => each !== undefined);
  return undefined;
}

function rank(type: ts.Type): number {
  if (type.flags & (ts.TypeFlags.Undefined | ts.TypeFlags.Null)) return 3;
  if (type.isIntersection()) return 2;
  return type.flags & ts.TypeFlags.Object ? 1 : 0;
}

function access(name: string): string {
  return /^[\p{ID_Start}$_][\p{ID_Continue}$]*$/u.test(name) ? `.${name}` : `[${JSON.stringify(name)}]`;
}
