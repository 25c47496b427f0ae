import ts from "typescript";
import { hole } from "../../../../core/outline/handWritten.js";
import { unwrapped } from "./unwrapped.js";

/** An address in real code takes a few steps. Names that refer to each other would take any number. */
const mostSteps = 200;

/**
 * Returns the text of an expression as far as source shows it, with `hole` for parts that are known only at run time;
 * undefined if it shows nothing.
 */
export function addressOf(node: ts.Expression, checker: ts.TypeChecker): string | undefined {
  let steps = mostSteps;
  const read = (expression: ts.Expression): string | undefined => {
    if (steps-- <= 0) return undefined;
    const inner = unwrapped(expression);
    if (ts.isStringLiteralLike(inner)) return inner.text;
    if (ts.isTemplateExpression(inner))
      return inner.templateSpans.reduce(
        (text, span) => text + shown(span.expression) + span.literal.text,
        inner.head.text,
      );
    if (isSum(inner)) return summands(inner).map(shown).join("");
    // `new URL("/berths", base)` and `new Request("/berths")`.
    const [first] = ts.isNewExpression(inner) ? (inner.arguments ?? []) : [];
    const value = first ?? constantValue(inner, checker);
    return value && read(value);
  };
  const shown = (expression: ts.Expression): string => read(expression) ?? hole;
  return read(node);
}

function isSum(node: ts.Expression): node is ts.BinaryExpression {
  return ts.isBinaryExpression(node) && node.operatorToken.kind === ts.SyntaxKind.PlusToken;
}

/** The parts of a sum, in order. It may have any number of parts, so this does not recurse. */
function summands(sum: ts.BinaryExpression): ts.Expression[] {
  const parts: ts.Expression[] = [];
  let left: ts.Expression = sum;
  while (isSum(left)) {
    parts.push(left.right);
    left = unwrapped(left.left);
  }
  return [...parts, left].reverse();
}

/** Returns the value of a name that gets a value once. */
export function constantValue(node: ts.Node, checker: ts.TypeChecker): ts.Expression | undefined {
  if (!ts.isIdentifier(node)) return undefined;
  const declaration = checker.getSymbolAtLocation(node)?.valueDeclaration;
  if (!declaration || !ts.isVariableDeclaration(declaration)) return undefined;
  const isConstant = (ts.getCombinedNodeFlags(declaration) & ts.NodeFlags.Const) !== 0;
  return isConstant ? declaration.initializer : undefined;
}
