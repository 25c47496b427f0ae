import type { Parameter } from "../../contract/model.js";
import { memberNameFrom } from "../nameScope.js";
import type { PlannedArgument, PlannedResponse, RestCall, RestPlan } from "../sdkPlan.js";
import type { Conversions } from "./values/conversion.js";
import { bodyWays } from "./lowerBody.js";
import type { CookieStep, HeaderStep, PathStep, QueryStep, RequestPlan, SentValue } from "./request.js";
import { serverUrl } from "./serverAddress.js";

/** An argument for a parameter, with the parameter and the value that is sent. */
interface Given {
  readonly parameter: Parameter;
  readonly value: SentValue;
}

/** Plans how the request of a call is written. */
export function lowerRequest(call: RestCall, plan: RestPlan, conversions: Conversions): RequestPlan {
  const { operation } = call;
  const inside: Record<Parameter["in"], Given[]> = { path: [], query: [], querystring: [], header: [], cookie: [] };
  let body: PlannedArgument | undefined;
  for (const argument of call.arguments) {
    if (argument.source.kind === "body") {
      body = argument;
      continue;
    }
    const { parameter } = argument.source;
    inside[parameter.in].push({ parameter, value: sentValue(argument, parameter, conversions) });
  }
  const [server] = operation.servers;
  const accept = acceptOf(call.answers);
  return {
    method: operation.method.toUpperCase(),
    path: pathSteps(operation.path, inside.path),
    query: [...inside.query.map(queryStep), ...inside.querystring.map(wholeQuery)],
    headers: headerSteps(inside.header, inside.cookie.length > 0),
    cookies: inside.cookie.length > 0 ? cookieSteps(inside.header, inside.cookie) : none,
    ...(server ? { server: serverUrl(server) } : {}),
    ...(body ? { body: { argument: body, ways: bodyWays(body, conversions) } } : {}),
    ...(accept === undefined ? {} : { accept }),
    auth: authOf(call, plan),
  };
}

const none: readonly never[] = [];

function sentValue(argument: PlannedArgument, parameter: Parameter, conversions: Conversions): SentValue {
  const encode = conversions.of(argument.type);
  if (!argument.standing && !encode) return { argument };
  return {
    argument,
    ...(argument.standing ? { standing: memberNameFrom(parameter.name) } : {}),
    ...(encode ? { encode } : {}),
  };
}

/** The path in parts: fixed text, and parameters with their style. */
function pathSteps(path: string, parameters: readonly Given[]): PathStep[] {
  if (parameters.length === 0) return path === "" ? [] : [{ kind: "text", text: path }];
  const steps: PathStep[] = [];
  for (const part of path.split(/(\{[^{}]+\})/)) {
    const given =
      part.startsWith("{") && part.endsWith("}")
        ? parameters.find(
            ({ parameter }) => part.length === parameter.name.length + 2 && part.startsWith(parameter.name, 1),
          )
        : undefined;
    if (!given) {
      if (part !== "") steps.push({ kind: "text", text: part });
      continue;
    }
    const { style, explode, name } = given.parameter;
    const writer = style === "json" || style === "label" || style === "matrix" ? style : "segment";
    steps.push({ kind: "value", writer, name, value: given.value, explode });
  }
  return steps;
}

function queryStep({ parameter, value }: Given): QueryStep {
  const { name, explode } = parameter;
  return { name, value, explode, writer: writerOf(parameter) };
}

function writerOf({ style, explode, allowReserved }: Parameter): QueryStep["writer"] {
  switch (style) {
    // Exploded, every item repeats the name, whatever the separator.
    case "spaceDelimited":
      return explode ? "form" : "spaced";
    case "pipeDelimited":
      return explode ? "form" : "piped";
    case "tabDelimited":
      return "tabbed";
    case "deepObject":
    case "json":
      return style;
    default:
      return allowReserved ? "reserved" : "form";
  }
}

/** The whole query string of 3.2: JSON as it is, or the pairs of a record. */
function wholeQuery({ parameter, value }: Given): QueryStep {
  return { name: undefined, value, explode: true, writer: parameter.style === "json" ? "json" : "form" };
}

/** @param hasCookies whether a header `Cookie` is one of the cookies */
function headerSteps(headers: readonly Given[], hasCookies: boolean): HeaderStep[] {
  const own = hasCookies ? headers.filter((each) => !isCookie(each)) : headers;
  return own.map(({ parameter: { name, style, explode }, value }): HeaderStep => {
    return { name, writer: style === "json" ? "json" : "plain", value, explode };
  });
}

function cookieSteps(headers: readonly Given[], cookies: readonly Given[]): CookieStep[] {
  return [
    ...headers.filter(isCookie).map(({ parameter: { name }, value }): CookieStep => ({ name, writer: "whole", value })),
    ...cookies.map(({ parameter: { name, style }, value }): CookieStep => {
      return { name, writer: style === "json" ? "json" : "form", value };
    }),
  ];
}

function isCookie({ parameter }: Given): boolean {
  return parameter.name.toLowerCase() === "cookie";
}

/** The media types of all responses, each once. */
function acceptOf(answers: readonly PlannedResponse[]): string | undefined {
  const [only] = answers;
  if (answers.length === 1) return only?.mediaType;
  const types = new Set(answers.flatMap(({ mediaType }) => mediaType ?? []));
  return types.size > 0 ? [...types].join(", ") : undefined;
}

/** A client certificate belongs to the transport. The rest are the credentials that the app supplies. */
function authOf({ operation }: RestCall, { authSchemes }: RestPlan): readonly (readonly string[])[] {
  if (operation.auth.length === 0) return none;
  return operation.auth
    .filter((schemes) => schemes.every((scheme) => authSchemes.has(scheme)))
    .map((schemes) => schemes.filter((scheme) => authSchemes.get(scheme)?.kind !== "certificate"))
    .filter((schemes) => schemes.length > 0);
}
