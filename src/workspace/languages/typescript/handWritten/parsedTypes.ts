import ts from "typescript";
import { constantValue } from "./addressOf.js";
import type { Request } from "./requests.js";
import { unwrapped } from "./unwrapped.js";

/** A type that source claims for the value of a parsed response. */
export interface ClaimedType {
  readonly type: ts.TypeNode;
  /** The request of the response; undefined if it is unknown. */
  readonly request: Request | undefined;
}

/** How a scan recognises the requests of an app. */
export interface RequestsInApp {
  readonly checker: ts.TypeChecker;
  readonly requestOf: (node: ts.CallExpression) => Request | undefined;
}

/** Returns the types that a node claims for a parsed response. */
export function claimedTypes(node: ts.Node, app: RequestsInApp): ClaimedType[] {
  if (ts.isAsExpression(node) || ts.isTypeAssertionExpression(node)) return claimed(node.expression, node.type, app);
  if (ts.isVariableDeclaration(node) && node.initializer && node.type) return claimed(node.initializer, node.type, app);
  if (ts.isReturnStatement(node) && node.expression) {
    const around = ts.findAncestor(node.parent, ts.isFunctionLike);
    return around?.type ? claimed(node.expression, around.type, app) : [];
  }
  if (ts.isArrowFunction(node) && !ts.isBlock(node.body) && node.type) return claimed(node.body, node.type, app);
  if (ts.isCallExpression(node)) return [...byTypeArguments(node, app), ...byParameter(node, app)];
  return [];
}

function claimed(value: ts.Expression, type: ts.TypeNode, app: RequestsInApp): ClaimedType[] {
  const source = parsed(value, app);
  return source ? [{ type, request: source.request }] : [];
}

/** `http.get<Berth[]>("/berths")`. */
function byTypeArguments(node: ts.CallExpression, { requestOf }: RequestsInApp): ClaimedType[] {
  const request = node.typeArguments ? requestOf(node) : undefined;
  return request ? (node.typeArguments ?? []).map((type) => ({ type, request })) : [];
}

/** `response.json().then((berth: Berth) => …)`. */
function byParameter(node: ts.CallExpression, app: RequestsInApp): ClaimedType[] {
  const { expression } = node;
  if (!ts.isPropertyAccessExpression(expression) || expression.name.text !== "then") return [];
  const [then] = node.arguments;
  const type = then && ts.isFunctionLike(then) ? then.parameters[0]?.type : undefined;
  return type ? claimed(expression.expression, type, app) : [];
}

/** A parsed value: the body of a response, or a client's result; undefined for anything else. */
function parsed(
  value: ts.Expression,
  app: RequestsInApp,
  depth = 5,
): { readonly request: Request | undefined } | undefined {
  if (depth === 0) return undefined;
  const inner = unwrapped(value);
  if (ts.isAwaitExpression(inner)) return parsed(inner.expression, app, depth - 1);
  if (ts.isPropertyAccessExpression(inner) && inner.name.text === "data") {
    const request = requestBehind(inner.expression, app);
    return request && { request };
  }
  if (ts.isIdentifier(inner)) {
    const constant = constantValue(inner, app.checker);
    return constant && parsed(constant, app, depth - 1);
  }
  if (!ts.isCallExpression(inner) || !ts.isPropertyAccessExpression(inner.expression)) return undefined;
  const { name, expression } = inner.expression;
  if (name.text === "json" && inner.arguments.length === 0) return { request: requestBehind(expression, app) };
  const [first] = inner.arguments;
  if (name.text === "then" && first && ts.isArrowFunction(first) && !ts.isBlock(first.body)) {
    const made = parsed(first.body, app, depth - 1);
    return made && { request: made.request ?? requestBehind(expression, app) };
  }
  const isJson = name.text === "parse" && ts.isIdentifier(expression) && expression.text === "JSON";
  return isJson && first ? textOfResponse(first, app, depth - 1) : undefined;
}

/** `JSON.parse(await response.text())`. Data that an app has stored is not a response. */
function textOfResponse(
  value: ts.Expression,
  app: RequestsInApp,
  depth: number,
): { readonly request: Request | undefined } | undefined {
  const awaited = unwrapped(value);
  const constant = depth > 0 ? constantValue(awaited, app.checker) : undefined;
  if (constant) return textOfResponse(constant, app, depth - 1);
  const inner = ts.isAwaitExpression(awaited) ? unwrapped(awaited.expression) : awaited;
  const isText =
    ts.isCallExpression(inner) &&
    ts.isPropertyAccessExpression(inner.expression) &&
    inner.expression.name.text === "text" &&
    inner.arguments.length === 0;
  return isText && ts.isPropertyAccessExpression(inner.expression)
    ? { request: requestBehind(inner.expression.expression, app) }
    : undefined;
}

/** The request of a response. */
function requestBehind(value: ts.Expression, app: RequestsInApp, depth = 5): Request | undefined {
  const inner = unwrapped(value);
  if (depth === 0) return undefined;
  if (ts.isAwaitExpression(inner)) return requestBehind(inner.expression, app, depth - 1);
  if (ts.isCallExpression(inner)) return app.requestOf(inner);
  const constant = constantValue(inner, app.checker);
  return constant && requestBehind(constant, app, depth - 1);
}
