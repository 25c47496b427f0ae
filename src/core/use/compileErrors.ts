import ts from "typescript";
import type { CompileError } from "./explainErrors.js";

/**
 * Everything that the compiler refuses in an app's own files.
 *
 * @param among only files of these names, where that is enough to know
 */
export function compileErrors(
  program: ts.Program,
  documents: ReadonlyMap<string, string>,
  among?: ReadonlySet<string>,
): CompileError[] {
  const found: CompileError[] = [];
  for (const [name, document] of documents) {
    if (among && !among.has(name)) continue;
    const file = program.getSourceFile(name);
    if (!file) continue;
    for (const each of [...program.getSyntacticDiagnostics(file), ...program.getSemanticDiagnostics(file)]) {
      if (each.category !== ts.DiagnosticCategory.Error) continue;
      const offset = each.start ?? 0;
      const ranges = rangesAround(file, offset, offset + Math.max(1, each.length ?? 1));
      const [start, end] = ranges.at(-1) ?? [offset, offset];
      found.push({
        place: { document, offset, length: Math.max(1, each.length ?? 1) },
        code: `TS${String(each.code)}`,
        message: ts.flattenDiagnosticMessageText(each.messageText, " "),
        ranges,
        scope: scopeAround(file, offset) ?? [start, end],
        statement: file.text.slice(start, end),
      });
    }
  }
  return found;
}

/** From the smallest part of the source that holds a place to the statement around it. */
function rangesAround(file: ts.SourceFile, start: number, end: number): [number, number][] {
  let ranges: [number, number][] = [];
  const visit = (node: ts.Node): void => {
    const inner = ts.forEachChild(node, (child) =>
      child.getStart(file) <= start && child.getEnd() >= end ? child : undefined,
    );
    if (!inner) return;
    // What stands in a statement inside a statement has nothing to do with the outer one.
    if (isStatement(inner)) ranges = [];
    ranges.unshift([inner.getStart(file), inner.getEnd()]);
    visit(inner);
  };
  visit(file);
  return ranges.length > 0 ? ranges : [[start, end]];
}

/** The function that a place stands in; undefined at the top of a file. */
function scopeAround(file: ts.SourceFile, at: number): [number, number] | undefined {
  let scope: [number, number] | undefined;
  const visit = (node: ts.Node): void => {
    if (node.getStart(file) > at || node.getEnd() <= at) return;
    if (ts.isFunctionLike(node)) scope = [node.getStart(file), node.getEnd()];
    ts.forEachChild(node, visit);
  };
  ts.forEachChild(file, visit);
  return scope;
}

function isStatement(node: ts.Node): boolean {
  return ts.isStatement(node) && !ts.isBlock(node);
}
