import ts from "typescript";

/**
 * Returns the compiler's output in the usual layout: indented by two spaces, with a blank line between declarations.
 * Template literals of several lines stay as they are.
 *
 * @param printed the compiler's output
 */
export function tidied(printed: string): string {
  const file = ts.createSourceFile("printed.ts", printed, ts.ScriptTarget.Latest, false, ts.ScriptKind.TS);
  const untouched = printed.includes("`") ? linesInsideTexts(file) : new Set<number>();
  const apart = new Set(
    file.statements.flatMap((statement, at) => {
      const before = file.statements[at - 1];
      return before && isTogether(file, before, statement) ? [] : [lineOf(file, beginningOf(file, statement))];
    }),
  );
  const lines = printed.split("\n").flatMap((line, at): string[] => {
    if (untouched.has(at)) return [line];
    const inwards = /^ */.exec(line)?.[0].length ?? 0;
    const shown = " ".repeat(Math.floor(inwards / 4) * 2 + (inwards % 4)) + line.slice(inwards);
    return [...(apart.has(at) && at > 0 ? [""] : []), ...nameLines(shown)];
  });
  return lines.join("\n");
}

const widest = 110;

/** Imports of names on one line, or on a line for each of them if there are many. */
function nameLines(line: string): string[] {
  const [, start = "", names = "", end = ""] =
    /^((?:import|export) (?:type )?)\{ (.*?),? \}( from ".*";)$/.exec(line) ?? [];
  if (names === "") return [line];
  const whole = `${start}{ ${names} }${end}`;
  return whole.length <= widest ? [whole] : [`${start}{`, ...names.split(", ").map((name) => `  ${name},`), `}${end}`];
}

/** Imports are one block, and so are exports of other modules. */
function isTogether(file: ts.SourceFile, one: ts.Statement, other: ts.Statement): boolean {
  return (
    (ts.isImportDeclaration(one) && ts.isImportDeclaration(other)) ||
    (ts.isExportDeclaration(one) && ts.isExportDeclaration(other)) ||
    (ts.isVariableStatement(one) && ts.isVariableStatement(other) && isBare(file, one) && isBare(file, other))
  );
}

/** Constants on one line without a comment. */
function isBare(file: ts.SourceFile, statement: ts.VariableStatement): boolean {
  return !file.text.slice(statement.pos, statement.end).trim().includes("\n");
}

/** The start of a statement's comment, or of the statement itself. */
function beginningOf(file: ts.SourceFile, statement: ts.Statement): number {
  const [comment] = ts.getLeadingCommentRanges(file.text, statement.pos) ?? [];
  return comment?.pos ?? statement.getStart(file);
}

function lineOf(file: ts.SourceFile, offset: number): number {
  return file.getLineAndCharacterOfPosition(offset).line;
}

/** The lines that begin inside a template literal of several lines. */
function linesInsideTexts(file: ts.SourceFile): Set<number> {
  const found = new Set<number>();
  const visit = (node: ts.Node): void => {
    if (ts.isTemplateLiteralToken(node)) {
      const [first, last] = [lineOf(file, node.getStart(file)), lineOf(file, node.end)];
      for (let line = first + 1; line <= last; line++) found.add(line);
    }
    ts.forEachChild(node, visit);
  };
  visit(file);
  return found;
}
