import ts from "typescript";

/**
 * Returns the names of a program's files that import a file of a certain kind, directly or through others.
 *
 * @param isWanted returns whether a file is of that kind
 */
export function filesReaching(program: ts.Program, isWanted: (fileName: string) => boolean): Set<string> {
  const checker = program.getTypeChecker();
  const importedBy = new Map<string, string[]>();
  const open: string[] = [];
  for (const file of program.getSourceFiles()) {
    if (isWanted(file.fileName)) open.push(file.fileName);
    if (file.isDeclarationFile) continue;
    for (const specifier of specifiersOf(file)) {
      const target = checker.getSymbolAtLocation(specifier)?.declarations?.[0]?.getSourceFile().fileName;
      if (target === undefined) continue;
      const known = importedBy.get(target);
      if (known) known.push(file.fileName);
      else importedBy.set(target, [file.fileName]);
    }
  }
  const found = new Set<string>();
  for (let name = open.pop(); name !== undefined; name = open.pop()) {
    if (found.has(name)) continue;
    found.add(name);
    open.push(...(importedBy.get(name) ?? []));
  }
  return found;
}

/** Returns whether a file imports code that does not exist, so that the compiler cannot know its types. */
export function importsUnknown(program: ts.Program, file: ts.SourceFile): boolean {
  const checker = program.getTypeChecker();
  return specifiersOf(file).some(
    (specifier) =>
      ts.isStringLiteralLike(specifier) &&
      !/\.(?![cm]?[jt]sx?$|vue$|svelte$)\w+(?:\?\w+)?$/.test(specifier.text) &&
      checker.getSymbolAtLocation(specifier) === undefined,
  );
}

/** The imports and re-exports of a module, with `import()` and `require`. */
function specifiersOf(file: ts.SourceFile): ts.Expression[] {
  const found: ts.Expression[] = [];
  for (const statement of file.statements) {
    if ((ts.isImportDeclaration(statement) || ts.isExportDeclaration(statement)) && statement.moduleSpecifier)
      found.push(statement.moduleSpecifier);
  }
  if (!/\b(import|require)\s*\(/.test(file.text)) return found;
  const visit = (node: ts.Node): void => {
    if (ts.isCallExpression(node) && node.arguments[0] && isLoading(node)) found.push(node.arguments[0]);
    ts.forEachChild(node, visit);
  };
  visit(file);
  return found;
}

function isLoading({ expression }: ts.CallExpression): boolean {
  return (
    expression.kind === ts.SyntaxKind.ImportKeyword || (ts.isIdentifier(expression) && expression.text === "require")
  );
}
