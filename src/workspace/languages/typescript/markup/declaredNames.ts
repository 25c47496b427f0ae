import ts from "typescript";

/** What the top of a script declares. */
export interface DeclaredNames {
  /** Values that are not imported. */
  readonly values: readonly string[];
  /** Values that are imported, or may be. */
  readonly imports: readonly string[];
}

/** The names that the statements at the top of a script give to values. */
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

/** The names that a pattern binds. */
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
