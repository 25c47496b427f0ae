import ts from "typescript";
import { hole } from "../../../../core/outline/handWritten.js";
import { unwrapped } from "./unwrapped.js";

/**
 * The text of an expression as far as source shows it, with `hole` for what only the running app knows; undefined where
 * it shows nothing.
 */
export function addressOf(node: ts.Expression, checker: ts.TypeChecker, depth = 5): string | undefined {
  const inner = unwrapped(node);
  if (ts.isStringLiteralLike(inner)) return inner.text;
  if (ts.isTemplateExpression(inner))
    return inner.templateSpans.reduce(
      (text, { expression, literal }) => text + (addressOf(expression, checker, depth - 1) ?? hole) + literal.text,
      inner.head.text,
    );
  if (ts.isBinaryExpression(inner) && inner.operatorToken.kind === ts.SyntaxKind.PlusToken) {
    const [left, right] = [inner.left, inner.right].map((each) => addressOf(each, checker, depth - 1) ?? hole);
    return `${left ?? hole}${right ?? hole}`;
  }
  // `new URL("/berths", base)` and `new Request("/berths")`.
  const [first] = ts.isNewExpression(inner) ? (inner.arguments ?? []) : [];
  if (first) return addressOf(first, checker, depth - 1);
  const value = depth > 0 ? constantValue(inner, checker) : undefined;
  return value && addressOf(value, checker, depth - 1);
}

/** What a name stands for that is given a value once. */
export function constantValue(node: ts.Node, checker: ts.TypeChecker): ts.Expression | undefined {
  if (!ts.isIdentifier(node)) return undefined;
  const declaration = checker.getSymbolAtLocation(node)?.valueDeclaration;
  if (!declaration || !ts.isVariableDeclaration(declaration)) return undefined;
  const isConstant = (ts.getCombinedNodeFlags(declaration) & ts.NodeFlags.Const) !== 0;
  return isConstant ? declaration.initializer : undefined;
}
