import ts from "typescript";

/** What is known of the types that are looked into. */
export interface LookingInside {
  readonly checker: ts.TypeChecker;
  /** Whether a file is the app's or the SDK's: into what others declare nobody looks. */
  readonly isOwn: (file: ts.SourceFile) => boolean;
  /** The SDK's name of a record. */
  readonly nameOf: (type: ts.Type) => string | undefined;
}

const deepest = 6;
const mostTypes = 500;

/** The SDK's names of all records that a value of a type holds, or that its functions give. */
export function recordsInside(type: ts.Type, { checker, isOwn, nameOf }: LookingInside): Set<string> {
  const names = new Set<string>();
  const seen = new Set<ts.Type>();
  const look = (each: ts.Type, depth: number): void => {
    if (depth > deepest || seen.has(each) || seen.size > mostTypes) return;
    seen.add(each);
    if (each.isUnionOrIntersection()) {
      for (const member of each.types) look(member, depth);
      return;
    }
    const name = nameOf(each);
    if (name !== undefined) names.add(name);
    if (!(each.flags & ts.TypeFlags.Object)) return;
    if ((each as ts.ObjectType).objectFlags & ts.ObjectFlags.Reference)
      for (const argument of checker.getTypeArguments(each as ts.TypeReference)) look(argument, depth + 1);
    for (const { type: value } of checker.getIndexInfosOfType(each)) look(value, depth + 1);
    for (const signature of each.getCallSignatures()) look(signature.getReturnType(), depth + 1);
    for (const property of each.getProperties()) {
      const declaration = property.declarations?.[0];
      if (declaration && isOwn(declaration.getSourceFile())) look(checker.getTypeOfSymbol(property), depth + 1);
    }
  };
  look(type, 0);
  return names;
}
