import type { Content, Parameter } from "../../contract/model.js";
import { memberNameFrom } from "../nameScope.js";
import type { PlannedArgument, PlannedResponse, RestCall, RestPlan } from "../sdkPlan.js";
import type { Conversions } from "./conversion.js";
import { bodyWays } from "./lowerBody.js";
import type { CookieStep, HeaderStep, PathStep, QueryStep, RequestPlan, SentValue } from "./request.js";
import { serverUrl } from "./serverAddress.js";

/** An argument that is a parameter, with what the contract says about it. */
interface Given {
  readonly argument: PlannedArgument;
  readonly parameter: Parameter;
}

/** Decides how the request of a call is written. */
export function lowerRequest(call: RestCall, plan: RestPlan, conversions: Conversions): RequestPlan {
  const { operation } = call;
  const given = call.arguments.flatMap((argument): Given[] =>
    argument.source.kind === "parameter" ? [{ argument, parameter: argument.source.parameter }] : [],
  );
  const inside = (location: Parameter["in"]): Given[] => given.filter(({ parameter }) => parameter.in === location);
  const sent = ({ argument, parameter }: Given): SentValue => sentValue(argument, parameter, conversions);
  const [server] = operation.servers;
  const body = call.arguments.find(({ source }) => source.kind === "body");
  const accept = acceptOf(call.answers);
  return {
    method: operation.method.toUpperCase(),
    path: pathSteps(operation.path, inside("path"), sent),
    query: [
      ...inside("query").map((each) => queryStep(each, sent(each))),
      ...inside("querystring").map((each) => wholeQuery(each, sent(each))),
    ],
    ...headersAndCookies(inside("header"), inside("cookie"), sent),
    ...(server ? { server: serverUrl(server) } : {}),
    ...(body ? { body: { argument: body, ways: bodyWays(body, conversions) } } : {}),
    ...(accept === undefined ? {} : { accept }),
    auth: authOf(call, plan),
  };
}

function sentValue(argument: PlannedArgument, parameter: Parameter, conversions: Conversions): SentValue {
  const encode = conversions.of(argument.type);
  return {
    argument,
    ...(argument.standing ? { standing: memberNameFrom(parameter.name) } : {}),
    ...(encode ? { encode } : {}),
  };
}

/** The path in parts: fixed text, and parameters that are written by their style. */
function pathSteps(path: string, parameters: readonly Given[], sent: (given: Given) => SentValue): PathStep[] {
  const steps = path.split(/(\{[^{}]+\})/).map((part): PathStep => {
    const name = /^\{([^{}]+)\}$/.exec(part)?.[1];
    const given = parameters.find(({ parameter }) => parameter.name === name);
    if (!given) return { kind: "text", text: part };
    const { style, explode } = given.parameter;
    const writer = style === "json" || style === "label" || style === "matrix" ? style : "segment";
    return { kind: "value", writer, name: given.parameter.name, value: sent(given), explode };
  });
  return steps.filter((step) => step.kind === "value" || step.text !== "");
}

function queryStep({ parameter }: Given, value: SentValue): QueryStep {
  const { name, style, explode } = parameter;
  return { name, value, explode, writer: writerOf(parameter, style, explode) };
}

function writerOf(parameter: Parameter, style: Parameter["style"], explode: boolean): QueryStep["writer"] {
  switch (style) {
    // Exploded, every item has the name again, whatever would have stood between them.
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
      return parameter.allowReserved ? "reserved" : "form";
  }
}

/** 3.2's whole query string: JSON as it is, or the pairs of a record. */
function wholeQuery({ parameter }: Given, value: SentValue): QueryStep {
  return { name: undefined, value, explode: true, writer: parameter.style === "json" ? "json" : "form" };
}

/** The headers of a call; where it sends cookies, a header `Cookie` is one of them. */
function headersAndCookies(
  headers: readonly Given[],
  cookies: readonly Given[],
  sent: (given: Given) => SentValue,
): { headers: HeaderStep[]; cookies: CookieStep[] } {
  const isCookie = ({ parameter }: Given): boolean => cookies.length > 0 && parameter.name.toLowerCase() === "cookie";
  return {
    headers: headers
      .filter((each) => !isCookie(each))
      .map((each): HeaderStep => {
        const { name, style, explode } = each.parameter;
        return { name, writer: style === "json" ? "json" : "plain", value: sent(each), explode };
      }),
    cookies: [
      ...headers
        .filter(isCookie)
        .map((each): CookieStep => ({ name: each.parameter.name, writer: "whole", value: sent(each) })),
      ...cookies.map((each): CookieStep => {
        const { name, style } = each.parameter;
        return { name, writer: style === "json" ? "json" : "form", value: sent(each) };
      }),
    ],
  };
}

function acceptOf(answers: readonly PlannedResponse[]): string | undefined {
  const types = [
    ...new Set(answers.flatMap(({ mediaType }): Content["mediaType"][] => (mediaType ? [mediaType] : []))),
  ];
  return types.length > 0 ? types.join(", ") : undefined;
}

/** A client certificate belongs to the transport; what is left are the credentials that the app supplies. */
function authOf(call: RestCall, plan: RestPlan): string[][] {
  return call.operation.auth
    .filter((schemes) => schemes.every((scheme) => plan.authSchemes.has(scheme)))
    .map((schemes) => schemes.filter((scheme) => plan.authSchemes.get(scheme)?.kind !== "certificate"))
    .filter((schemes) => schemes.length > 0);
}
