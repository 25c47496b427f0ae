import ts from "typescript";

/** The top-level declarations of a script. */
export interface DeclaredNames {
  /** Values that are not imported. */
  readonly values: readonly string[];
  /** Values that are imported, or may be. */
  readonly imports: readonly string[];
}

/** Returns the names that the top-level statements of a script declare. */
export function declaredNames(file: ts.SourceFile): DeclaredNames {
  const values: string[] = [];
  const imports: string[] = [];
  for (const statement of file.statements) {
    if (ts.isVariableStatement(statement))
      for (const { name } of statement.declarationList.declarations) values.push(...boundNames(name));
    else if (
      (ts.isFunctionDeclaration(statement) || ts.isClassDeclaration(statement) || ts.isEnumDeclaration(statement)) &&
      statement.name
    )
      values.push(statement.name.text);
    else if (ts.isImportDeclaration(statement)) imports.push(...importedValues(statement));
  }
  return { values, imports };
}

/** Returns the names in a pattern. */
export function boundNames(name: ts.BindingName): string[] {
  if (ts.isIdentifier(name)) return [name.text];
  return name.elements.flatMap((element) => (ts.isBindingElement(element) ? boundNames(element.name) : []));
}

function importedValues({ importClause: clause }: ts.ImportDeclaration): string[] {
  if (!clause || clause.phaseModifier === ts.SyntaxKind.TypeKeyword) return [];
  const { name, namedBindings } = clause;
  const bindings = !namedBindings
    ? []
    : ts.isNamespaceImport(namedBindings)
      ? [namedBindings.name.text]
      : namedBindings.elements.filter(({ isTypeOnly }) => !isTypeOnly).map((element) => element.name.text);
  return [...(name ? [name.text] : []), ...bindings];
}
