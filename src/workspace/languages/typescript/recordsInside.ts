import ts from "typescript";

/** The facts for looking into types. */
export interface LookingInside {
  readonly checker: ts.TypeChecker;
  /** Returns whether a file is the app's or the SDK's. Types of other files are not looked into. */
  readonly isOwn: (file: ts.SourceFile) => boolean;
}

/** A generic type can contain itself with different arguments each time. */
const deepest = 50;

/**
 * Finds the records in values whose further use is unknown. Values of one type may be passed on at thousands of places,
 * and most types of a contract refer to each other, so each type is looked into once.
 */
export class RecordsInside {
  private readonly seen = new Set<ts.Type>();

  constructor(private readonly looking: LookingInside) {}

  /**
   * Returns the names of all records in a type, or in the results of its functions, without those returned before.
   *
   * @param nameOf returns the SDK's name of a record; undefined if the SDK does not declare it
   */
  newIn(type: ts.Type, nameOf: (type: ts.Type) => string | undefined): Set<string> {
    const names = new Set<string>();
    let open: ts.Type[] = [type];
    for (let depth = 0; open.length > 0 && depth <= deepest; depth++) {
      const next: ts.Type[] = [];
      for (const each of open) {
        if (this.seen.has(each)) continue;
        this.seen.add(each);
        const name = each.isUnionOrIntersection() ? undefined : nameOf(each);
        if (name !== undefined) names.add(name);
        for (const part of this.partsOf(each)) next.push(part);
      }
      open = next;
    }
    return names;
  }

  private partsOf(type: ts.Type): readonly ts.Type[] {
    const { checker, isOwn } = this.looking;
    if (type.isUnionOrIntersection()) return type.types;
    if (!(type.flags & ts.TypeFlags.Object)) return [];
    const isReference = ((type as ts.ObjectType).objectFlags & ts.ObjectFlags.Reference) !== 0;
    return [
      ...(isReference ? checker.getTypeArguments(type as ts.TypeReference) : []),
      ...checker.getIndexInfosOfType(type).map((index) => index.type),
      ...type.getCallSignatures().map((signature) => signature.getReturnType()),
      ...type.getProperties().flatMap((property) => {
        const file = property.declarations?.[0]?.getSourceFile();
        return file && isOwn(file) ? [checker.getTypeOfSymbol(property)] : [];
      }),
    ];
  }
}
