import ts from "typescript";

/** The files in which names of an SDK can occur. */
export interface SdkFiles {
  readonly program: ts.Program;
  /** Returns whether a file is one of the SDK's own modules. */
  readonly isSdkFile: (fileName: string) => boolean;
  /** The names of the files that import the SDK, directly or through others. */
  readonly reaching: ReadonlySet<string>;
}

/**
 * Returns every identifier that can name something of an SDK: the names in its modules, and the aliases in imports and
 * re-exports. Most identifiers of an app are none of these, so the compiler does not have to resolve them.
 */
export function sdkWords({ program, isSdkFile, reaching }: SdkFiles): Set<string> {
  const words = new Set(["default"]);
  for (const file of program.getSourceFiles()) {
    // Scripts have more ways to pass on a module, and to name its exports.
    const isWhole = isSdkFile(file.fileName) || (reaching.has(file.fileName) && /\.[cm]?jsx?$/.test(file.fileName));
    if (isWhole) for (const word of identifiersOf(file)) words.add(word);
    else if (reaching.has(file.fileName)) for (const { text } of importedNames(file)) words.add(text);
  }
  return words;
}

/** The parser collects them, but its public types do not show them. */
function identifiersOf(file: ts.SourceFile): Iterable<string> {
  return (file as ts.SourceFile & { readonly identifiers: ReadonlyMap<string, string> }).identifiers.keys();
}

/** The names that a file gives to its imports and re-exports. */
function importedNames(file: ts.SourceFile): ts.Identifier[] {
  const found: ts.Identifier[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isIdentifier(node)) found.push(node);
    ts.forEachChild(node, visit);
  };
  for (const statement of file.statements)
    if (
      ts.isImportDeclaration(statement) ||
      ts.isExportDeclaration(statement) ||
      ts.isImportEqualsDeclaration(statement)
    )
      visit(statement);
  return found;
}
