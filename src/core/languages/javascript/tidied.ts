import ts from "typescript";

/**
 * What the compiler prints, as people write it: two spaces for each step inwards, and a blank line between what a module
 * declares. Texts of several lines stay as they are.
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

/** A line that imports names, or a line for each of them where they are many. */
function nameLines(line: string): string[] {
  const [, start = "", names = "", end = ""] =
    /^((?:import|export) (?:type )?)\{ (.*?),? \}( from ".*";)$/.exec(line) ?? [];
  if (names === "") return [line];
  const whole = `${start}{ ${names} }${end}`;
  return whole.length <= widest ? [whole] : [`${start}{`, ...names.split(", ").map((name) => `  ${name},`), `}${end}`];
}

/** Imports stand in one block, and so do exports of other modules. */
function isTogether(file: ts.SourceFile, one: ts.Statement, other: ts.Statement): boolean {
  return (
    (ts.isImportDeclaration(one) && ts.isImportDeclaration(other)) ||
    (ts.isExportDeclaration(one) && ts.isExportDeclaration(other)) ||
    (ts.isVariableStatement(one) && ts.isVariableStatement(other) && isBare(file, one) && isBare(file, other))
  );
}

/** Constants of one line without a comment. */
function isBare(file: ts.SourceFile, statement: ts.VariableStatement): boolean {
  return !file.text.slice(statement.pos, statement.end).trim().includes("\n");
}

/** Where the comment of a statement begins, or the statement itself. */
function beginningOf(file: ts.SourceFile, statement: ts.Statement): number {
  const [comment] = ts.getLeadingCommentRanges(file.text, statement.pos) ?? [];
  return comment?.pos ?? statement.getStart(file);
}

function lineOf(file: ts.SourceFile, offset: number): number {
  return file.getLineAndCharacterOfPosition(offset).line;
}

/** The lines that begin inside a text of several lines. */
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
