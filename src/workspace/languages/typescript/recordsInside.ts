import ts from "typescript";

/** What is known of the types that are looked into. */
export interface LookingInside {
  readonly checker: ts.TypeChecker;
  /** Whether a file is the app's or the SDK's: into what others declare nobody looks. */
  readonly isOwn: (file: ts.SourceFile) => boolean;
}

/** A generic type can hold itself with ever other arguments. */
const deepest = 50;

/**
 * The records that values hold which are handed on to where nobody sees what is read of them. Values of one type may be
 * handed on at thousands of places, and most types of a contract reach each other: each type is looked into once.
 */
export class RecordsInside {
  private readonly seen = new Set<ts.Type>();

  constructor(private readonly looking: LookingInside) {}

  /**
   * The names of all records that a value of a type holds, or that its functions give, but those told before.
   *
   * @param nameOf the SDK's name of a record; undefined for what the SDK does not declare
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
