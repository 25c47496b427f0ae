import ts from "typescript";
import type { HandWritten } from "../../../../core/outline/handWritten.js";
import type { AppProgram } from "../appProgram.js";
import { placeOf } from "./placeOf.js";
import type { ClaimedType } from "./parsedTypes.js";

/** A contract's part of an SDK in a program. */
export interface SdkModule {
  readonly contract: string;
  /** Its index, by the compiler's name and by its name for people. */
  readonly file: string;
  readonly path: string;
  /** Returns whether a file belongs to the SDK. */
  readonly isOwn: (fileName: string) => boolean;
}

/** A type of a contract with the fields of one of the app's own. */
interface Match {
  readonly name: string;
  readonly module: SdkModule;
  readonly fields: number;
}

const fewestFields = 3;
/** A type of unknown origin needs more fields as evidence. */
const fewestFieldsUnseen = 5;

/** Types of an app's own that contracts have too. */
export class CoveredTypes {
  private readonly checker: ts.TypeChecker;
  private readonly known: readonly { readonly name: string; readonly type: ts.Type; readonly module: SdkModule }[];

  constructor(
    private readonly app: AppProgram,
    modules: readonly SdkModule[],
  ) {
    this.checker = app.program.getTypeChecker();
    this.known = modules.flatMap((module) => this.recordsOf(module));
  }

  /** The records that an SDK's module exports, by name. */
  private recordsOf(module: SdkModule) {
    const file = this.app.program.getSourceFile(module.file);
    const symbol = file && this.checker.getSymbolAtLocation(file);
    return (symbol ? this.checker.getExportsOfModule(symbol) : []).flatMap((exported) => {
      const target = exported.flags & ts.SymbolFlags.Alias ? this.checker.getAliasedSymbol(exported) : exported;
      if (!(target.flags & (ts.SymbolFlags.Interface | ts.SymbolFlags.TypeAlias))) return [];
      const type = this.checker.getDeclaredTypeOfSymbol(target);
      const members = type.isUnion() ? type.types : [type];
      const isRecord = members.every((each) => (each.flags & ts.TypeFlags.Object) !== 0);
      return isRecord ? [{ name: exported.name, type, module }] : [];
    });
  }

  /** Returns the covered types among those that source claims, and among the types inside them, each once. */
  ofClaims(claims: readonly ClaimedType[]): HandWritten[] {
    const found = new Map<ts.Declaration, HandWritten>();
    for (const { type, request } of claims) {
      // A response from elsewhere has nothing to do with the contract, whatever its type.
      if (request?.isSeen === true && request.operation === undefined) continue;
      const isSeen = request?.operation !== undefined;
      for (const declaration of this.declaredIn(this.checker.getTypeFromTypeNode(type))) {
        const match = this.matching(declaration, isSeen ? request.operation.contract : undefined);
        const told = match && this.told(declaration, match);
        if (told) found.set(declaration, told);
      }
    }
    return [...found.values()];
  }

  /** The app's own declarations of records in a type. */
  private declaredIn(type: ts.Type, seen = new Set<ts.Type | ts.Declaration>()): RecordDeclaration[] {
    if (seen.has(type)) return [];
    seen.add(type);
    const inner = [
      ...(type.isUnionOrIntersection() ? type.types : []),
      ...(type.aliasTypeArguments ?? []),
      ...(this.isReference(type) ? this.checker.getTypeArguments(type) : []),
    ];
    const declared = ((type.aliasSymbol ?? type.getSymbol())?.declarations ?? []).filter((each) => this.isOwn(each));
    // A type that contains itself with different arguments each time is a new type each time, but is declared once.
    const fresh = declared.filter((each) => !seen.has(each));
    for (const each of fresh) seen.add(each);
    const own = fresh.filter(isRecord);
    const fields = fresh.length > 0 ? type.getProperties() : [];
    return [
      ...own,
      ...inner.flatMap((each) => this.declaredIn(each, seen)),
      ...fields.flatMap((field) => this.declaredIn(this.checker.getTypeOfSymbol(field), seen)),
    ];
  }

  private isReference(type: ts.Type): type is ts.TypeReference {
    return (
      (type.flags & ts.TypeFlags.Object) !== 0 && ((type as ts.ObjectType).objectFlags & ts.ObjectFlags.Reference) !== 0
    );
  }

  /** @param contract the contract of the request; any if it is unknown */
  private matching(declaration: RecordDeclaration, contract: string | undefined): Match | undefined {
    const own = this.checker.getTypeAtLocation(declaration.name);
    const fields = own.getProperties();
    if (fields.length < (contract === undefined ? fewestFieldsUnseen : fewestFields)) return undefined;
    const name = declaration.name.text;
    const fitting = this.known
      .filter(({ module }) => contract === undefined || module.contract === contract)
      .filter(({ type }) => fields.every((field) => this.fits(field, type)))
      .map((each): Match => ({ ...each, fields: each.type.getProperties().length }));
    return fitting.sort(
      (a, b) => Number(b.name === name) - Number(a.name === name) || a.fields - b.fields || (a.name < b.name ? -1 : 1),
    )[0];
  }

  /** Whether a record has a field with a type that the app expects. */
  private fits(field: ts.Symbol, record: ts.Type, depth = 5): boolean {
    const other = this.checker.getPropertyOfType(record, field.name);
    return (
      other !== undefined && this.holds(this.checker.getTypeOfSymbol(other), this.checker.getTypeOfSymbol(field), depth)
    );
  }

  /** Whether the app expects a value's type, apart from null and undefined, which people often leave out. */
  private holds(of: ts.Type, as: ts.Type, depth: number): boolean {
    const [given, taken] = [this.checker.getNonNullableType(of), this.checker.getNonNullableType(as)];
    // A value of type any has no type to compare.
    if (depth === 0 || (taken.flags & (ts.TypeFlags.Any | ts.TypeFlags.Unknown)) !== 0) return false;
    const items = [given, taken].map((each) => this.checker.getIndexTypeOfType(each, ts.IndexKind.Number));
    const [item, itemTaken] = items;
    if (item && itemTaken && this.isReference(taken)) return this.holds(item, itemTaken, depth - 1);
    const isOwn = this.declarationsOf(taken).length > 0;
    return isOwn
      ? taken.getProperties().every((field) => this.fits(field, given, depth - 1))
      : this.checker.isTypeAssignableTo(given, taken);
  }

  /** The app's own declarations of a record. */
  private declarationsOf(type: ts.Type): RecordDeclaration[] {
    return ((type.aliasSymbol ?? type.getSymbol())?.declarations ?? [])
      .filter(isRecord)
      .filter((each) => this.isOwn(each));
  }

  private isOwn(declaration: ts.Declaration): boolean {
    return this.app.documents.has(declaration.getSourceFile().fileName);
  }

  private told(declaration: RecordDeclaration, { name, module }: Match): HandWritten | undefined {
    const { fileName } = declaration.getSourceFile();
    const known = this.app.documents.get(fileName);
    const place = known && !module.isOwn(fileName) ? placeOf(declaration.name, known) : undefined;
    if (!place) return undefined;
    return {
      kind: "type",
      contract: module.contract,
      place,
      what: `type ${declaration.name.text}`,
      instead: name,
      from: module.path,
    };
  }
}

type RecordDeclaration = ts.InterfaceDeclaration | (ts.TypeAliasDeclaration & { readonly type: ts.TypeLiteralNode });

function isRecord(node: ts.Declaration): node is RecordDeclaration {
  return ts.isInterfaceDeclaration(node) || (ts.isTypeAliasDeclaration(node) && ts.isTypeLiteralNode(node.type));
}
