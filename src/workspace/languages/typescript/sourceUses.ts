import { connectionCoordinate, memberOf, printCoordinate, type Coordinate } from "../../../core/use/coordinate.js";
import ts from "typescript";
import { filesReaching } from "./filesReaching.js";
import { RecordsInside } from "./recordsInside.js";
import { sdkWords } from "./sdkWords.js";
import type { SourceUse, SourceUseKind } from "../../../core/use/sourceUse.js";

/** The SDK in a program, and the names of its files. */
export interface SdkInProgram {
  readonly program: ts.Program;
  /** Returns whether a file is one of the SDK's own modules for the contract. */
  readonly isSdkFile: (fileName: string) => boolean;
  /** The function that creates a connection. */
  readonly connect: string;
  /** Returns the path of a file for people; undefined for files that are not searched. */
  readonly documentOf: (fileName: string) => string | undefined;
  /** Returns the place of a part of a file in its source; undefined for added code. */
  readonly sourceRange?: (fileName: string, start: number, end: number) => readonly [number, number] | undefined;
}

/**
 * Returns, with the compiler's own knowledge, every place in an app that uses an SDK: calls, types, fields that are
 * read or written, enum values that are compared. Aliases, re-exports, destructuring, spread and helpers with a key
 * parameter are followed. If the field is unknown (a computed key, `any`), the place may use every field of the record.
 */
export function sourceUses(sdk: SdkInProgram): SourceUse[] {
  const found: SourceUse[] = [];
  // A file that never imports the SDK, not even through other files, does not use it.
  const reaching = filesReaching(sdk.program, sdk.isSdkFile);
  const words = sdkWords({ program: sdk.program, isSdkFile: sdk.isSdkFile, reaching });
  const inside = new RecordsInside({
    checker: sdk.program.getTypeChecker(),
    isOwn: ({ fileName }) => sdk.isSdkFile(fileName) || sdk.documentOf(fileName) !== undefined,
  });
  for (const file of sdk.program.getSourceFiles()) {
    const document = sdk.documentOf(file.fileName);
    if (document === undefined || !reaching.has(file.fileName)) continue;
    new FileScan({ sdk, inside, words, found }, file, document).scan();
  }
  return found;
}

/** A declaration of an SDK: a name, or a member of one. */
interface Declared {
  readonly owner: string;
  readonly member?: string;
  /** Whether it is a type. */
  readonly isType: boolean;
}

/** The shared facts of the scans of all files. */
interface WholeScan {
  readonly sdk: SdkInProgram;
  readonly inside: RecordsInside;
  /** The identifiers that can name something of the SDK. */
  readonly words: ReadonlySet<string>;
  readonly found: SourceUse[];
}

class FileScan {
  private readonly sdk: SdkInProgram;
  private readonly checker: ts.TypeChecker;
  private readonly seen = new Set<string>();

  constructor(
    private readonly whole: WholeScan,
    private readonly file: ts.SourceFile,
    private readonly document: string,
  ) {
    this.sdk = whole.sdk;
    this.checker = this.sdk.program.getTypeChecker();
  }

  scan(): void {
    this.visit(this.file);
  }

  private add(coordinate: Coordinate, kind: SourceUseKind, node: ts.Node): void {
    const range = this.rangeOf(node);
    if (!range) return;
    const [offset, end] = range;
    // One place may count in two ways: for the name of a type, and for its member.
    const key = `${coordinate} ${kind} ${String(offset)}`;
    if (this.seen.has(key)) return;
    this.seen.add(key);
    const length = Math.max(1, Math.min(end - offset, longestShown));
    this.whole.found.push({ coordinate, kind, place: { document: this.document, offset, length } });
  }

  private rangeOf(node: ts.Node): readonly [number, number] | undefined {
    const [start, end] = [node.getStart(this.file), node.getEnd()];
    return this.sdk.sourceRange ? this.sdk.sourceRange(this.file.fileName, start, end) : [start, end];
  }

  private readonly visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node) || ts.isImportEqualsDeclaration(node)) return;
    if (ts.isIdentifier(node)) this.identifier(node);
    else if (ts.isObjectLiteralExpression(node)) this.literal(node);
    else if (ts.isElementAccessExpression(node)) this.elementAccess(node);
    else if (ts.isTypeOperatorNode(node) && node.operator === ts.SyntaxKind.KeyOfKeyword) this.reached(node.type, node);
    else if (ts.isAsExpression(node) && node.type.kind === ts.SyntaxKind.AnyKeyword)
      this.handedOn(this.checker.getTypeAtLocation(node.expression), node);
    else if (ts.isClassDeclaration(node) && isRenderedElsewhere(node) && node.name)
      this.handedOn(this.checker.getTypeAtLocation(node), node.name);
    else if (ts.isCallExpression(node)) this.call(node);
    else if (ts.isStringLiteralLike(node) || ts.isNumericLiteral(node)) this.choice(node);
    else if (ts.isSwitchStatement(node)) this.switched(node);
    else if (ts.isForInStatement(node)) this.reached(node.expression, node.expression);
    ts.forEachChild(node, this.visit);
  };

  private identifier(node: ts.Identifier): void {
    const { parent } = node;
    // The declaration of an app's own name is not a use.
    if (!this.whole.words.has(node.text) || isOwnName(node)) return;
    if (ts.isBindingElement(parent) && (parent.propertyName ?? parent.name) === node) {
      this.bound(parent, node);
      return;
    }
    // A property of a literal is scanned with the whole literal.
    if ((ts.isPropertyAssignment(parent) && parent.name === node) || ts.isShorthandPropertyAssignment(parent)) {
      if (ts.isShorthandPropertyAssignment(parent))
        this.symbols(this.checker.getShorthandAssignmentValueSymbol(parent), node);
      return;
    }
    this.symbols(this.checker.getSymbolAtLocation(node), node);
  }

  private symbols(symbol: ts.Symbol | undefined, node: ts.Identifier): void {
    for (const declared of this.declared(symbol)) this.use(declared, node);
  }

  private use({ owner, member, isType }: Declared, node: ts.Node): void {
    if (member !== undefined) {
      const value = valueGiven(node);
      if (value) this.written(owner, member, { node, value });
      else this.field(owner, member, { kind: "reads", node });
      return;
    }
    this.add(
      owner === this.sdk.connect ? connectionCoordinate : printCoordinate(owner),
      isType ? "names" : "calls",
      node,
    );
  }

  private field(
    owner: string,
    member: string,
    { kind, node }: { readonly kind: SourceUseKind; readonly node: ts.Node },
  ): void {
    this.add(memberOf(owner, member), kind, node);
    for (const name of this.namedBy(owner, member)) this.add(printCoordinate(name), kind, node);
  }

  /** A member that receives a value. If the value can only be some of an enum's values, no other one is sent. */
  private written(
    owner: string,
    member: string,
    { node, value }: { readonly node: ts.Node; readonly value: ts.Expression | undefined },
  ): void {
    const values = value && valuesOf(this.checker.getTypeAtLocation(value));
    const taken = value && this.checker.getContextualType(value);
    const isAny = (values?.length ?? 0) > 1 && values?.length === (taken && valuesOf(taken))?.length;
    if (!values || isAny) {
      this.field(owner, member, { kind: "writes", node });
      return;
    }
    this.add(memberOf(owner, member), "writes", node);
    for (const name of [memberOf(owner, member), ...this.namedBy(owner, member)])
      for (const each of values) this.add(memberOf(name, each), "writes", node);
  }

  /** The names of SDK types in the declared type of a member: reading the member is a use of them. */
  private namedBy(owner: string, member: string): readonly string[] {
    return this.memberTypes.get(memberOf(owner, member)) ?? [];
  }

  private readonly memberTypes = new Map<string, string[]>();

  /** The SDK declarations of a symbol, through aliases. A property of a union has several declarations. */
  private declared(symbol: ts.Symbol | undefined): Declared[] {
    if (!symbol) return [];
    const target = symbol.flags & ts.SymbolFlags.Alias ? this.checker.getAliasedSymbol(symbol) : symbol;
    const all = (target.declarations ?? []).flatMap((declaration) => this.declaredBy(declaration));
    const seen = new Set<string>();
    return all.filter(({ owner, member }) => {
      const key = `${owner}.${member ?? ""}`;
      if (seen.has(key)) return false;
      seen.add(key);
      return true;
    });
  }

  private declaredBy(declaration: ts.Declaration): Declared[] {
    const file = declaration.getSourceFile();
    if (!this.sdk.isSdkFile(file.fileName)) return [];
    if (ts.isPropertySignature(declaration)) {
      const owner = ownerOf(declaration);
      const member = ts.isComputedPropertyName(declaration.name) ? undefined : declaration.name.text;
      if (member === undefined) return [];
      // The result of a declared function: the grouped calls are its members.
      if (owner === undefined)
        return declaration.type && ts.isFunctionTypeNode(declaration.type) ? [{ owner: member, isType: false }] : [];
      this.rememberTypes(memberOf(owner, member), declaration.type);
      return [{ owner, member, isType: true }];
    }
    // The grouped calls are properties of a function's result.
    if (ts.isPropertyAssignment(declaration) && ts.isIdentifier(declaration.name))
      return [{ owner: declaration.name.text, isType: false }];
    if (ts.isInterfaceDeclaration(declaration) || ts.isTypeAliasDeclaration(declaration))
      return [{ owner: declaration.name.text, isType: true }];
    if (ts.isFunctionDeclaration(declaration) && declaration.name)
      return [{ owner: declaration.name.text, isType: false }];
    if (ts.isVariableDeclaration(declaration) && ts.isIdentifier(declaration.name))
      return [{ owner: declaration.name.text, isType: false }];
    return [];
  }

  private rememberTypes(key: string, type: ts.TypeNode | undefined): void {
    if (!type || this.memberTypes.has(key)) return;
    const names: string[] = [];
    const collect = (node: ts.Node): void => {
      if (ts.isTypeReferenceNode(node) && ts.isIdentifier(node.typeName)) {
        const symbol = this.checker.getSymbolAtLocation(node.typeName);
        const target = symbol && symbol.flags & ts.SymbolFlags.Alias ? this.checker.getAliasedSymbol(symbol) : symbol;
        if (target && target.flags & ts.SymbolFlags.TypeAlias) names.push(node.typeName.text);
      }
      ts.forEachChild(node, collect);
    };
    collect(type);
    this.memberTypes.set(key, names);
  }

  /** `const { note, status: state } = berth`. */
  private bound(element: ts.BindingElement, node: ts.Identifier): void {
    if (element.dotDotDotToken || !ts.isObjectBindingPattern(element.parent)) return;
    const property = this.checker.getTypeAtLocation(element.parent).getProperty(node.text);
    // The exports of a module that is loaded at run time are not members.
    for (const declared of this.declared(property)) this.use(declared, node);
  }

  /** A record that is built: the fields that it sets, and those that it leaves out. */
  private literal(node: ts.ObjectLiteralExpression): void {
    const expected = this.checker.getContextualType(node);
    if (!expected) return;
    const set = new Map<string, ts.Node>();
    const given = new Map<string, ts.Expression>();
    let isWhole = true;
    for (const property of node.properties) {
      if (ts.isSpreadAssignment(property)) isWhole = false;
      else if (!ts.isComputedPropertyName(property.name)) set.set(property.name.text, property.name);
      else isWhole = false;
      if (ts.isPropertyAssignment(property) && !ts.isComputedPropertyName(property.name))
        given.set(property.name.text, property.initializer);
      else if (ts.isShorthandPropertyAssignment(property)) given.set(property.name.text, property.name);
    }
    const owners = new Set<string>();
    for (const type of this.takenBy(node, membersOf(expected))) {
      const owner = this.recordName(type);
      for (const property of this.checker.getPropertiesOfType(type)) {
        const at = set.get(property.name);
        for (const { owner: declaredIn, member } of this.declared(property)) {
          if (member === undefined) continue;
          if (owner === undefined) owners.add(declaredIn);
          if (at) this.written(declaredIn, member, { node: at, value: given.get(property.name) });
          else if (isWhole) this.add(printCoordinate(memberOf(declaredIn, member), "omitted"), "omits", node);
        }
      }
      if (owner !== undefined) owners.add(owner);
    }
    for (const owner of owners) this.add(printCoordinate(owner, "built"), "builds", node);
  }

  /**
   * The members of a union that a literal can have; all of them if it matches none, for example if it is incomplete.
   */
  private takenBy(node: ts.ObjectLiteralExpression, members: readonly ts.Type[]): readonly ts.Type[] {
    if (members.length < 2) return members;
    const own = this.checker.getTypeAtLocation(node);
    const fitting = members.filter((each) => this.checker.isTypeAssignableTo(own, each));
    return fitting.length > 0 ? fitting : members;
  }

  private recordName(type: ts.Type): string | undefined {
    return this.declared(type.aliasSymbol ?? type.symbol).find(({ isType, member }) => isType && member === undefined)
      ?.owner;
  }

  private elementAccess(node: ts.ElementAccessExpression): void {
    const key = node.argumentExpression;
    const type = this.checker.getTypeAtLocation(node.expression);
    if (ts.isStringLiteralLike(key)) {
      for (const each of membersOf(type))
        for (const declared of this.declared(each.getProperty(key.text)))
          if (declared.member === undefined) this.use(declared, key);
          else this.field(declared.owner, declared.member, { kind: valueGiven(node) ? "writes" : "reads", node: key });
      return;
    }
    if (this.checker.getTypeAtLocation(key).flags & ts.TypeFlags.NumberLike) return;
    this.reached(node.expression, node);
  }

  /** A record is used as a whole, in a way that does not show its fields. */
  private reached(of: ts.Node, node: ts.Node): void {
    const type = ts.isTypeNode(of) ? this.checker.getTypeFromTypeNode(of) : this.checker.getTypeAtLocation(of);
    for (const name of this.recordNames(type)) this.add(printCoordinate(name, "anyMember"), "reaches", node);
  }

  /** A value goes where its use, and that of the values inside it, is unknown. */
  private handedOn(type: ts.Type, node: ts.Node): void {
    const nameOf = (each: ts.Type): string | undefined => this.recordName(each) ?? this.fieldOwner(each);
    for (const name of this.whole.inside.newIn(type, nameOf))
      this.add(printCoordinate(name, "anyMember"), "reaches", node);
  }

  /** The record with a type's fields, if a helper type made it. */
  private fieldOwner(type: ts.Type): string | undefined {
    const [first] = type.getProperties();
    return this.declared(first).find(({ member }) => member !== undefined)?.owner;
  }

  private recordNames(type: ts.Type): string[] {
    const direct = membersOf(type).flatMap((each) => this.recordName(each) ?? []);
    const item = this.checker.getIndexTypeOfType(type, ts.IndexKind.Number);
    return [...new Set([...direct, ...(item ? membersOf(item).flatMap((each) => this.recordName(each) ?? []) : [])])];
  }

  /** A call that is given by name: `berthsKey(harbour, "listBerths")`. */
  private memberSaid(name: ts.StringLiteralLike, parameter: ts.Symbol | undefined): void {
    const declaration = parameter?.valueDeclaration;
    const type = declaration && ts.isParameter(declaration) ? declaration.type : undefined;
    const made = type && typeQueryIn(type);
    const [signature] = made ? this.checker.getTypeFromTypeNode(made).getCallSignatures() : [];
    for (const declared of this.declared(signature?.getReturnType().getProperty(name.text))) this.use(declared, name);
  }

  /**
   * The arguments that a call leaves out, the values that it passes as `any`, and keys that are strings: `pick(berth,
   * "note")`.
   */
  private call(node: ts.CallExpression): void {
    if (this.isWithoutMeaning(node)) return;
    const signature = this.checker.getResolvedSignature(node);
    const declaration = signature?.getDeclaration();
    if (!signature) return;
    const isOfSdk = declaration !== undefined && this.sdk.isSdkFile(declaration.getSourceFile().fileName);
    const parameters = signature.getParameters();
    if (isOfSdk) {
      node.arguments.forEach((argument, at) => {
        if (ts.isStringLiteralLike(argument)) this.memberSaid(argument, parameters[at]);
      });
      const missing = parameters.slice(node.arguments.length).find(({ name }) => name === "args");
      if (missing) {
        const type = this.checker.getTypeOfSymbolAtLocation(missing, node);
        for (const each of membersOf(type))
          for (const property of this.checker.getPropertiesOfType(each))
            for (const { owner, member } of this.declared(property))
              if (member !== undefined) this.add(printCoordinate(memberOf(owner, member), "omitted"), "omits", node);
      }
      return;
    }
    node.arguments.forEach((argument, at) => {
      const parameter = parameters[Math.min(at, parameters.length - 1)];
      if (!parameter) return;
      const expected = this.checker.getTypeOfSymbolAtLocation(parameter, node);
      if (expected.flags & ts.TypeFlags.Any) this.handedOn(this.checker.getTypeAtLocation(argument), argument);
      if (ts.isStringLiteralLike(argument) && takesKey(parameter))
        for (const other of node.arguments) {
          if (other === argument) continue;
          const type = this.checker.getTypeAtLocation(other);
          const item = this.checker.getIndexTypeOfType(type, ts.IndexKind.Number) ?? type;
          for (const each of membersOf(item))
            for (const { owner, member } of this.declared(each.getProperty(argument.text)))
              if (member !== undefined) this.field(owner, member, { kind: "reads", node: argument });
        }
      else if (!ts.isStringLiteralLike(argument) && takesKey(parameter))
        for (const other of node.arguments) if (other !== argument) this.reached(other, argument);
    });
  }

  /**
   * Whether a call adds nothing, so that the compiler does not have to resolve its signature, which is most of its
   * work.
   */
  private isWithoutMeaning(node: ts.CallExpression): boolean {
    const { expression, arguments: given } = node;
    if (looksAtNothing(expression)) return true;
    const name = ts.isPropertyAccessExpression(expression) ? expression.name : expression;
    if (!ts.isIdentifier(name)) return false;
    if (!this.whole.words.has(name.text)) return given.length === 0;
    const symbol = this.checker.getSymbolAtLocation(name);
    const target = symbol && symbol.flags & ts.SymbolFlags.Alias ? this.checker.getAliasedSymbol(symbol) : symbol;
    const declarations = target?.declarations ?? [];
    return declarations.length > 0 && declarations.every((each) => this.isSdkCallWithAll(each, given));
  }

  /** Whether a declaration is the SDK's, all its parameters are given, and no string can be a name. */
  private isSdkCallWithAll(declaration: ts.Declaration, given: readonly ts.Expression[]): boolean {
    if (!ts.isFunctionDeclaration(declaration) || !this.sdk.isSdkFile(declaration.getSourceFile().fileName))
      return false;
    const at = declaration.parameters.findIndex(({ name }) => ts.isIdentifier(name) && name.text === "args");
    return at < given.length && !given.some((each) => ts.isSpreadElement(each) || ts.isStringLiteralLike(each));
  }

  /** An enum value that is compared, matched or sent. */
  private choice(node: ts.StringLiteralLike | ts.NumericLiteral): void {
    const { parent } = node;
    if (ts.isBinaryExpression(parent) && isComparison(parent.operatorToken.kind)) {
      this.valued(parent.left === node ? parent.right : parent.left, node.text, { kind: "matches", node });
      return;
    }
    if (ts.isCaseClause(parent) && parent.expression === node) {
      this.valued(parent.parent.parent.expression, node.text, { kind: "matches", node });
      return;
    }
    const expected = ts.isExpression(node) ? this.checker.getContextualType(node) : undefined;
    if (expected) for (const name of this.aliases(expected)) this.add(memberOf(name, node.text), "writes", node);
    let property: ts.Node = parent;
    while (
      ts.isArrayLiteralExpression(property) ||
      ts.isParenthesizedExpression(property) ||
      ts.isConditionalExpression(property)
    )
      property = property.parent;
    if (ts.isPropertyAssignment(property)) {
      const owner = this.checker.getContextualType(property.parent);
      const { name } = property;
      if (!owner || ts.isComputedPropertyName(name)) return;
      for (const each of membersOf(owner))
        this.memberValue(each.getProperty(name.text), node.text, { kind: "writes", node });
    }
  }

  private valued(
    expression: ts.Expression,
    value: string,
    { kind, node }: { readonly kind: SourceUseKind; readonly node: ts.Node },
  ): void {
    const bare = ts.isParenthesizedExpression(expression) ? expression.expression : expression;
    for (const name of this.aliases(this.checker.getTypeAtLocation(bare))) this.add(memberOf(name, value), kind, node);
    this.memberValue(this.origin(bare), value, { kind, node });
  }

  private memberValue(
    symbol: ts.Symbol | undefined,
    value: string,
    { kind, node }: { readonly kind: SourceUseKind; readonly node: ts.Node },
  ): void {
    for (const { owner, member } of this.declared(symbol)) {
      if (member === undefined) continue;
      this.add(memberOf(memberOf(owner, member), value), kind, node);
      for (const name of this.namedBy(owner, member)) this.add(memberOf(name, value), kind, node);
    }
  }

  /** The member that an expression reads, also through a constant. */
  private origin(expression: ts.Expression): ts.Symbol | undefined {
    const symbol = this.checker.getSymbolAtLocation(
      ts.isPropertyAccessExpression(expression) ? expression.name : expression,
    );
    const declaration = symbol?.valueDeclaration;
    if (declaration && ts.isBindingElement(declaration)) {
      const name = declaration.propertyName ?? declaration.name;
      return ts.isIdentifier(name)
        ? this.checker.getTypeAtLocation(declaration.parent).getProperty(name.text)
        : undefined;
    }
    if (declaration && ts.isVariableDeclaration(declaration) && declaration.initializer) {
      const { initializer } = declaration;
      return ts.isPropertyAccessExpression(initializer) ? this.checker.getSymbolAtLocation(initializer.name) : symbol;
    }
    return symbol;
  }

  private switched(node: ts.SwitchStatement): void {
    for (const name of this.aliases(this.checker.getTypeAtLocation(node.expression)))
      this.add(printCoordinate(name), "matches", node.expression);
  }

  /** The names of the SDK's enums for a type. */
  private aliases(type: ts.Type): string[] {
    const all = [type, ...membersOf(type)];
    return [...new Set(all.flatMap(({ aliasSymbol }) => this.declared(aliasSymbol).map(({ owner }) => owner)))];
  }
}

/** Whether a class has its template in another file, so that its reads are unknown. */
function isRenderedElsewhere(node: ts.ClassDeclaration): boolean {
  return (ts.getDecorators(node) ?? []).some(
    ({ expression }) =>
      ts.isCallExpression(expression) &&
      ts.isIdentifier(expression.expression) &&
      expression.expression.text === "Component",
  );
}

/** Whether an identifier is a declaration and not a use. */
function isOwnName(node: ts.Identifier): boolean {
  const { parent } = node;
  if ((parent as { readonly name?: ts.Node }).name !== node) return false;
  return !(
    ts.isPropertyAccessExpression(parent) ||
    ts.isPropertyAssignment(parent) ||
    ts.isShorthandPropertyAssignment(parent) ||
    ts.isBindingElement(parent) ||
    ts.isExportSpecifier(parent)
  );
}

const longestShown = 80;

/** The possible types of a value. */
function membersOf(type: ts.Type): readonly ts.Type[] {
  return type.isUnion() ? type.types : [type];
}

/** The exported type around a member's declaration, at any depth. */
function ownerOf(declaration: ts.Node): string | undefined {
  for (let node: ts.Node = declaration; !ts.isSourceFile(node); node = node.parent)
    if (ts.isInterfaceDeclaration(node) || ts.isTypeAliasDeclaration(node)) return node.name.text;
  return undefined;
}

/** The value of an assignment, if a node is its target. */
function valueGiven(node: ts.Node): ts.Expression | undefined {
  const access = ts.isPropertyAccessExpression(node.parent) && node.parent.name === node ? node.parent : node;
  const { parent } = access;
  const isAssigned =
    ts.isBinaryExpression(parent) &&
    parent.left === access &&
    parent.operatorToken.kind >= ts.SyntaxKind.FirstAssignment &&
    parent.operatorToken.kind <= ts.SyntaxKind.LastAssignment;
  return isAssigned ? parent.right : undefined;
}

/** The possible values of a type, if they are few and written in the type; otherwise undefined. */
function valuesOf(type: ts.Type): readonly string[] | undefined {
  const members = membersOf(type).filter(({ flags }) => !(flags & (ts.TypeFlags.Undefined | ts.TypeFlags.Null)));
  const values = members.flatMap((each) =>
    each.isStringLiteral() || each.isNumberLiteral() ? String(each.value) : [],
  );
  return values.length > 0 && values.length === members.length ? values : undefined;
}

function isComparison(kind: ts.SyntaxKind): boolean {
  return (
    kind === ts.SyntaxKind.EqualsEqualsEqualsToken ||
    kind === ts.SyntaxKind.ExclamationEqualsEqualsToken ||
    kind === ts.SyntaxKind.EqualsEqualsToken ||
    kind === ts.SyntaxKind.ExclamationEqualsToken
  );
}

/** Whether a function reads no field: output for people does not, and some functions only check the type. */
function looksAtNothing(called: ts.Expression): boolean {
  if (ts.isIdentifier(called)) return called.text === "Boolean" || called.text === "String";
  if (!ts.isPropertyAccessExpression(called) || !ts.isIdentifier(called.expression)) return false;
  const { text } = called.expression;
  return text === "console" || text === "JSON" || (text === "Array" && called.name.text === "isArray");
}

/** Whether a parameter is declared as a key: `keyof T`, or a type parameter that extends it. */
function takesKey(parameter: ts.Symbol): boolean {
  const declaration = parameter.valueDeclaration;
  const type = declaration && ts.isParameter(declaration) ? declaration.type : undefined;
  if (!type) return false;
  const isKey = (node: ts.TypeNode | undefined): boolean => {
    if (!node) return false;
    if (ts.isTypeOperatorNode(node)) return node.operator === ts.SyntaxKind.KeyOfKeyword || isKey(node.type);
    if (ts.isArrayTypeNode(node)) return isKey(node.elementType);
    if (ts.isUnionTypeNode(node) || ts.isIntersectionTypeNode(node)) return node.types.some(isKey);
    if (!ts.isTypeReferenceNode(node) || !ts.isIdentifier(node.typeName)) return false;
    const { text } = node.typeName;
    const owner = declaration?.parent as ts.SignatureDeclaration | undefined;
    return owner?.typeParameters?.some((each) => each.name.text === text && isKey(each.constraint)) === true;
  };
  return isKey(type);
}

/** The first `typeof` in a type. */
function typeQueryIn(type: ts.Node): ts.TypeQueryNode | undefined {
  return ts.isTypeQueryNode(type) ? type : ts.forEachChild(type, typeQueryIn);
}
