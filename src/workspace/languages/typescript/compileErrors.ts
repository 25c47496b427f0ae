import ts from "typescript";
import type { CompileError } from "../../../core/use/compileError.js";
import type { AppDocument } from "./appProgram.js";
import type { ComponentModule } from "./markup/componentModule.js";

/**
 * Returns all errors of the compiler in an app's own files.
 *
 * @param among limits the result to files with these names
 */
export function compileErrors(
  program: ts.Program,
  documents: ReadonlyMap<string, AppDocument>,
  among?: ReadonlySet<string>,
): CompileError[] {
  const found: CompileError[] = [];
  for (const [name, { document, module }] of documents) {
    if (among && !among.has(name)) continue;
    // Components without types are not checked.
    if (module && !module.isTyped) continue;
    const file = program.getSourceFile(name);
    if (!file) continue;
    for (const each of [...program.getSyntacticDiagnostics(file), ...program.getSemanticDiagnostics(file)]) {
      if (each.category !== ts.DiagnosticCategory.Error) continue;
      const offset = each.start ?? 0;
      const error = {
        document,
        code: `TS${String(each.code)}`,
        message: ts.flattenDiagnosticMessageText(each.messageText, " "),
      };
      const described = describeError(
        { program, file, module },
        [offset, offset + Math.max(1, each.length ?? 1)],
        error,
      );
      if (described) found.push(described);
    }
  }
  return found;
}

/** A file of an app, in its program. */
export interface ProgramFile {
  readonly program: ts.Program;
  readonly file: ts.SourceFile;
  /** Its source, if it is a component. */
  readonly module?: ComponentModule | undefined;
}

/** Returns an error with the code around it, which shows its cause; undefined if it is in code that nobody wrote. */
export function describeError(
  { program, file, module }: ProgramFile,
  whole: [number, number],
  { document, code, message }: { readonly document: string; readonly code: string; readonly message: string },
): CompileError | undefined {
  const inSource: InSource = (range) => (module ? module.mapped.sourceRange(...range) : range);
  const at = inSource(whole);
  if (!at) return undefined;
  const ranges = rangesAround(file, ...whole);
  const [start, end] = ranges.at(-1) ?? whole;
  const origins = [...originsOf(file, [start, end], program.getTypeChecker()), ...conditionsAround(file, whole[0])];
  return {
    place: { document, offset: at[0], length: at[1] - at[0] },
    code,
    message,
    members: [...message.matchAll(/[Pp]roperty '([^']+)'/g)].map(([, member = ""]) => member),
    ranges: mappedAll(ranges, inSource),
    origins: mappedAll(origins, inSource),
    scope: inSource(scopeAround(file, whole[0]) ?? [start, end]) ?? at,
    statement: file.text.slice(start, end),
  };
}

/** The place of a part of a file in its source; undefined for added code. */
type InSource = (range: [number, number]) => [number, number] | undefined;

function mappedAll(ranges: readonly [number, number][], inSource: InSource): [number, number][] {
  return ranges.flatMap((range) => {
    const mapped = inSource(range);
    return mapped ? [mapped] : [];
  });
}

/** The parts of the source around a place, from the smallest one to the statement. */
function rangesAround(file: ts.SourceFile, start: number, end: number): [number, number][] {
  let ranges: [number, number][] = [];
  const visit = (node: ts.Node): void => {
    const inner = ts.forEachChild(node, (child) =>
      child.getStart(file) <= start && child.getEnd() >= end ? child : undefined,
    );
    if (!inner) return;
    // A statement inside a statement has nothing to do with the outer one.
    if (isStatement(inner)) ranges = [];
    ranges.unshift([inner.getStart(file), inner.getEnd()]);
    visit(inner);
  };
  visit(file);
  return ranges.length > 0 ? ranges : [[start, end]];
}

const originSteps = 3;

/** The declarations of the variables in a statement, and of the variables in those, a few steps back. */
function originsOf(
  file: ts.SourceFile,
  statement: readonly [number, number],
  checker: ts.TypeChecker,
): [number, number][] {
  const found: [number, number][] = [];
  let from: readonly (readonly [number, number])[] = [statement];
  for (let step = 0; step < originSteps; step++) {
    const next: [number, number][] = [];
    for (const [start, end] of from)
      for (const name of namesIn(file, start, end)) {
        const declared = checker.getSymbolAtLocation(name)?.valueDeclaration;
        const origin = declared?.getSourceFile() === file ? originOf(declared) : undefined;
        const range: [number, number] | undefined = origin && [origin.getStart(file), origin.getEnd()];
        if (range && ![statement, ...found, ...next].some(([at]) => at === range[0])) next.push(range);
      }
    found.push(...next);
    from = next;
  }
  return found;
}

/** The conditions around a place, the closest first: a condition may decide the type of a variable. */
function conditionsAround(file: ts.SourceFile, at: number): [number, number][] {
  const found: [number, number][] = [];
  const visit = (node: ts.Node): void => {
    if (node.getStart(file) > at || node.getEnd() <= at) return;
    if (ts.isFunctionLike(node)) found.length = 0;
    const condition = ts.isIfStatement(node) || ts.isForOfStatement(node) ? node.expression : undefined;
    if (condition) found.unshift([condition.getStart(file), condition.getEnd()]);
    ts.forEachChild(node, visit);
  };
  ts.forEachChild(file, visit);
  return found;
}

function namesIn(file: ts.SourceFile, start: number, end: number): ts.Identifier[] {
  const names: ts.Identifier[] = [];
  const visit = (node: ts.Node): void => {
    if (node.getEnd() <= start || node.getStart(file) >= end) return;
    if (ts.isIdentifier(node) && node.getStart(file) >= start && node.getEnd() <= end) names.push(node);
    ts.forEachChild(node, visit);
  };
  visit(file);
  return names;
}

/** The source of a variable's value: its declaration, or the iterated value of a loop. */
function originOf(declared: ts.Declaration): ts.Node | undefined {
  let node: ts.Node = declared;
  while (ts.isBindingElement(node) || ts.isObjectBindingPattern(node) || ts.isArrayBindingPattern(node))
    node = node.parent;
  if (ts.isParameter(node)) return ts.isCallExpression(node.parent.parent) ? node.parent.parent.expression : undefined;
  if (!ts.isVariableDeclaration(node)) return undefined;
  const loop = node.parent.parent;
  return ts.isForOfStatement(loop) ? loop.expression : node;
}

/** The function around a place; undefined at the top of a file. */
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
