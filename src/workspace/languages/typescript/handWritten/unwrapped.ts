import ts from "typescript";

/** Returns an expression without parts for the compiler or the reader only: parentheses and type assertions. */
export function unwrapped(node: ts.Expression): ts.Expression {
  let inner = node;
  while (
    ts.isParenthesizedExpression(inner) ||
    ts.isAsExpression(inner) ||
    ts.isTypeAssertionExpression(inner) ||
    ts.isNonNullExpression(inner) ||
    ts.isSatisfiesExpression(inner)
  )
    inner = inner.expression;
  return inner;
}
