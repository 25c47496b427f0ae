import ts from "typescript";
import { requestedOperation, type RequestedOperation } from "../../../../core/outline/handWritten.js";
import { addressOf } from "./addressOf.js";
import { unwrapped } from "./unwrapped.js";

/** A call that sends a request. */
export interface Request {
  readonly node: ts.CallExpression;
  /** The operation of its address; undefined if its address is unknown or leads elsewhere. */
  readonly operation: RequestedOperation | undefined;
  /** Whether its address is known. */
  readonly isSeen: boolean;
}

const methods = ["get", "post", "put", "patch", "delete", "head", "options"];

/** Functions with an address, or an object with one, and options with the method. */
const clients = /(?:^|[^A-Za-z])fetch$|[a-z]Fetch$|^(?:ajax|axios|got|ky|request)$/;

/**
 * Returns the request that a call sends: a call of `fetch`, of a function with such a name, or of an object's member
 * for the method.
 *
 * @returns undefined if the call sends none
 */
export function requestOf(
  node: ts.CallExpression,
  checker: ts.TypeChecker,
  operations: readonly RequestedOperation[],
): Request | undefined {
  const [first, second] = node.arguments;
  const name = calledName(node);
  if (!first || name === undefined) return undefined;
  const isMethod = methods.includes(name);
  if (!(isMethod || clients.test(name)) || !isAwaited(node, checker)) return undefined;
  const inOptions = !isMethod && ts.isObjectLiteralExpression(first);
  const address = inOptions ? memberOf(first, "url") : first;
  const text = address && typeof address !== "string" ? addressOf(address, checker) : undefined;
  const method = isMethod ? name : methodSaid(inOptions ? first : second);
  const operation =
    text === undefined || method === undefined ? undefined : requestedOperation(text, method, operations);
  return { node, operation, isSeen: text !== undefined };
}

/** `fetch`, `window.fetch` and `http.get` by their last name. */
function calledName({ expression }: ts.CallExpression): string | undefined {
  if (ts.isIdentifier(expression)) return expression.text;
  return ts.isPropertyAccessExpression(expression) ? expression.name.text : undefined;
}

/** The call has a result: a promise, or an object to subscribe to. A route that a server declares has neither. */
function isAwaited(node: ts.CallExpression, checker: ts.TypeChecker): boolean {
  const type = checker.getTypeAtLocation(node);
  if (!(type.flags & ts.TypeFlags.Any))
    return ["then", "subscribe"].some((member) => type.getProperty(member) !== undefined);
  let parent = node.parent;
  while (ts.isParenthesizedExpression(parent)) parent = parent.parent;
  return ts.isAwaitExpression(parent) || (ts.isPropertyAccessExpression(parent) && parent.name.text === "then");
}

/** The method in options; GET if there is none, undefined if it is known only at run time. */
function methodSaid(options: ts.Expression | undefined): string | undefined {
  if (!options) return "get";
  const said = ts.isObjectLiteralExpression(options) ? memberOf(options, "method") : "unseen";
  if (said === undefined) return "get";
  const value = typeof said === "string" ? undefined : unwrapped(said);
  return value && ts.isStringLiteralLike(value) ? value.text : undefined;
}

/** The value of an object's member: undefined if it has none, "unseen" if it is known only at run time. */
function memberOf(object: ts.ObjectLiteralExpression, member: string): ts.Expression | "unseen" | undefined {
  for (const property of object.properties) {
    if (ts.isSpreadAssignment(property)) return "unseen";
    if (property.name.getText() !== member) continue;
    if (ts.isShorthandPropertyAssignment(property)) return property.name;
    return ts.isPropertyAssignment(property) ? property.initializer : "unseen";
  }
  return undefined;
}
