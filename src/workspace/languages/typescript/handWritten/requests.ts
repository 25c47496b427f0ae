import ts from "typescript";
import { requestedOperation, type RequestedOperation } from "../../../../core/outline/handWritten.js";
import { addressOf } from "./addressOf.js";
import { unwrapped } from "./unwrapped.js";

/** A call that sends a request. */
export interface Request {
  readonly node: ts.CallExpression;
  /** The operation that it asks for; undefined where its address is not seen, or leads elsewhere. */
  readonly operation: RequestedOperation | undefined;
  /** Whether its address is seen. */
  readonly isSeen: boolean;
}

const methods = ["get", "post", "put", "patch", "delete", "head", "options"];

/** What a call asks for, where it sends a request: of `fetch`, or of an object with a member for the method. */
export function requestOf(
  node: ts.CallExpression,
  checker: ts.TypeChecker,
  operations: readonly RequestedOperation[],
): Request | undefined {
  const [address, options] = node.arguments;
  const name = calledName(node);
  if (!address || name === undefined) return undefined;
  const isFetch = /^\$?fetch$/i.test(name);
  if (!(isFetch || methods.includes(name)) || !isAwaited(node, checker)) return undefined;
  const text = addressOf(address, checker);
  const method = isFetch ? methodSaid(options) : name;
  const operation =
    text === undefined || method === undefined ? undefined : requestedOperation(text, method, operations);
  return { node, operation, isSeen: text !== undefined };
}

/** `fetch`, `window.fetch` and `http.get` by their last name. */
function calledName({ expression }: ts.CallExpression): string | undefined {
  if (ts.isIdentifier(expression)) return expression.text;
  return ts.isPropertyAccessExpression(expression) ? expression.name.text : undefined;
}

/** Something is to come of it: a promise, or what is subscribed to. A route that a server declares is neither. */
function isAwaited(node: ts.CallExpression, checker: ts.TypeChecker): boolean {
  const type = checker.getTypeAtLocation(node);
  if (!(type.flags & ts.TypeFlags.Any))
    return ["then", "subscribe"].some((member) => type.getProperty(member) !== undefined);
  let parent = node.parent;
  while (ts.isParenthesizedExpression(parent)) parent = parent.parent;
  return ts.isAwaitExpression(parent) || (ts.isPropertyAccessExpression(parent) && parent.name.text === "then");
}

/** The method that options say; GET where they say none, undefined where only the running app knows. */
function methodSaid(options: ts.Expression | undefined): string | undefined {
  if (!options) return "get";
  if (!ts.isObjectLiteralExpression(options)) return undefined;
  for (const property of options.properties) {
    if (ts.isSpreadAssignment(property)) return undefined;
    if (property.name.getText() !== "method") continue;
    const value = ts.isPropertyAssignment(property) ? unwrapped(property.initializer) : undefined;
    return value && ts.isStringLiteralLike(value) ? value.text : undefined;
  }
  return "get";
}
