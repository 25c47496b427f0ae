import ts from "typescript";

/** Where words of an SDK can stand. */
export interface SdkFiles {
  readonly program: ts.Program;
  /** Whether a file is one of the SDK's own modules. */
  readonly isSdkFile: (fileName: string) => boolean;
  /** Names of the files that import the SDK, directly or through others. */
  readonly reaching: ReadonlySet<string>;
}

/**
 * Every identifier that can name something of an SDK: what its modules say, and the names that others give to what they
 * import or hand on. Most identifiers of an app are none of these, and the compiler need not be asked about them.
 */
export function sdkWords({ program, isSdkFile, reaching }: SdkFiles): Set<string> {
  const words = new Set(["default"]);
  for (const file of program.getSourceFiles()) {
    // Scripts have more ways to hand on a module, and to name what it gives.
    const isWhole = isSdkFile(file.fileName) || (reaching.has(file.fileName) && /\.[cm]?jsx?$/.test(file.fileName));
    if (isWhole) for (const word of identifiersOf(file)) words.add(word);
    else if (reaching.has(file.fileName)) for (const { text } of importedNames(file)) words.add(text);
  }
  return words;
}

/** The parser collects them, and tells them to nobody by its public types. */
function identifiersOf(file: ts.SourceFile): Iterable<string> {
  return (file as ts.SourceFile & { readonly identifiers: ReadonlyMap<string, string> }).identifiers.keys();
}

/** Names that a file gives to what it imports or hands on. */
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
