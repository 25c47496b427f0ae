import { isStream, operationLabel, type Content, type RestContract } from "../../core/contract/model.js";
import { nearest } from "../../core/text/nearest.js";
import { contractValidator, type ContractValidator } from "../samples/ajvForContract.js";
import { checkRequest, contentFor } from "../rest/checkRequest.js";
import { operationMatcher, type Matching, type MatchedOperation } from "../rest/matchOperation.js";
import { missingAuth } from "../rest/missingAuth.js";
import { responseFor } from "../rest/responseFor.js";
import type { Judgement, SeenExchange } from "./exchange.js";

/** Checks a request and its response with a REST contract; undefined if it is for none of the contract's paths. */
export type JudgeRest = (exchange: SeenExchange, below: readonly string[]) => Judgement | undefined;

/**
 * Creates a checker for a REST contract: every request and every response is validated against the raw contract.
 *
 * @param raw the parsed contract document
 */
export function restJudge(contract: RestContract, raw: unknown): JudgeRest {
  const match = operationMatcher(contract.operations);
  const requests = contractValidator(raw, contract.dialect, "request");
  const answers = contractValidator(raw, contract.dialect, "answer");
  const credentials = new Set(
    [...contract.authSchemes.values()].flatMap((scheme) =>
      scheme.kind === "key" && scheme.in === "query" ? [scheme.name] : [],
    ),
  );
  return (exchange, below) => {
    const found = firstMatch(exchange, below, match);
    if (found.kind === "none") return undefined;
    if (found.kind === "method") {
      const path = exchange.url.pathname;
      const allowed = found.allowed.join(", ");
      return {
        operation: undefined,
        disagreements: [`request: ${exchange.method} ${path}, which accepts ${allowed}`],
        unjudged: [],
      };
    }
    const { operation } = found.match;
    const asked = judgeRequest(found.match, exchange, { contract, validator: requests, credentials });
    const answered = judgeAnswer(found.match, exchange, answers);
    return {
      operation: operationLabel(operation),
      disagreements: [...asked.disagreements, ...answered.disagreements],
      unjudged: [...asked.unjudged, ...answered.unjudged],
    };
  };
}

function firstMatch(
  { method, url }: SeenExchange,
  below: readonly string[],
  match: (method: string, path: string) => Matching,
): Matching {
  let wrongMethod: Matching | undefined;
  for (const base of below) {
    if (base !== "" && url.pathname !== base && !url.pathname.startsWith(`${base}/`)) continue;
    const found = match(method, url.pathname.slice(base.length) || "/");
    if (found.kind === "match") return found;
    if (found.kind === "method") wrongMethod ??= found;
  }
  return wrongMethod ?? { kind: "none" };
}

type Parts = Pick<Judgement, "disagreements" | "unjudged">;

function judgeRequest(
  match: MatchedOperation,
  exchange: SeenExchange,
  {
    contract,
    validator,
    credentials,
  }: {
    readonly contract: RestContract;
    readonly validator: ContractValidator;
    readonly credentials: ReadonlySet<string>;
  },
): Parts {
  const { requestHeader, requestBody, url, status } = exchange;
  const seen = {
    query: url.search.slice(1),
    header: requestHeader,
    mediaType: requestHeader("content-type"),
    body: requestBody ?? "",
  };
  const { misfits } = checkRequest(match, seen, { validator, requestContext: { types: contract.types, credentials } });
  const isUnrecorded = requestBody === undefined && match.operation.body !== undefined;
  const counted = misfits.filter((each) => !(isUnrecorded && each.in === "body"));
  // A server that refuses a request without a credential matches the contract.
  const missing =
    status === 401
      ? undefined
      : missingAuth(match.operation, contract, { header: requestHeader, query: url.searchParams });
  return {
    disagreements: [
      ...counted.map((each) =>
        each.in === "body" ? `request: body ${each.message}` : `request: ${each.in} ${each.name} ${each.message}`,
      ),
      ...(missing === undefined ? [] : [`request: ${missing.replace(/; any value is accepted here$/, "")}`]),
    ],
    unjudged: isUnrecorded ? ["the request body was not recorded"] : [],
  };
}

function judgeAnswer({ operation }: MatchedOperation, exchange: SeenExchange, validator: ContractValidator): Parts {
  const { status, answerHeader, answerBody } = exchange;
  const declared = responseFor(operation, status);
  const where = `response ${String(status)}`;
  if (!declared) {
    const documented = operation.responses.map((each) => each.status).join(", ");
    return { disagreements: [`${where}: is not documented (${documented})`], unjudged: [] };
  }
  const missing = declared.headers
    .filter(({ name, required }) => required && answerHeader(name) === undefined)
    .map(({ name }) => `${where}: header ${name} is missing`);
  const mediaType = (answerHeader("content-type") ?? "").split(";")[0]?.trim().toLowerCase() ?? "";
  if (declared.contents.length === 0) {
    const isUnwanted = answerBody !== undefined && answerBody !== "" && declared.status !== "default";
    return {
      disagreements: [...missing, ...(isUnwanted ? [`${where}: has a body, but none is documented`] : [])],
      unjudged: [],
    };
  }
  if (operation.method === "head" || status === 304) return { disagreements: missing, unjudged: [] };
  if (answerBody === "" && mediaType === "")
    return { disagreements: [...missing, `${where}: has no body`], unjudged: [] };
  const content = contentFor(declared.contents, mediaType);
  if (!content) {
    const offered = declared.contents.map((each) => each.mediaType).join(", ");
    const found = mediaType === "" ? "no media type" : mediaType;
    return { disagreements: [...missing, `${where}: is ${found}, documented is ${offered}`], unjudged: [] };
  }
  if (answerBody === undefined) return { disagreements: missing, unjudged: ["the response body was not recorded"] };
  return { disagreements: [...missing, ...judgeBody(content, answerBody, { where, validator })], unjudged: [] };
}

const itemsJudged = 100;

function judgeBody(
  content: Content,
  text: string,
  { where, validator }: { readonly where: string; readonly validator: ContractValidator },
): string[] {
  const check = (part: string, at: string): string[] => {
    let value: unknown;
    try {
      value = JSON.parse(part) as unknown;
    } catch {
      return [`${where}${at}: is not JSON`];
    }
    return validator.check(content.schema, value, false).map((message) => `${where}${at}: ${message}`);
  };
  if (content.form === "json") return check(text, "");
  if (!isStream(content.form)) return [];
  const items =
    content.form === "events"
      ? eventData(text)
      : text.split(content.form === "sequence" ? "\u001e" : /\r?\n/).filter((line) => line.trim() !== "");
  // Events of plain text can contain anything.
  const isText = content.type.shape.kind === "text" || content.type.shape.kind === "any";
  return isText ? [] : [...new Set(items.slice(0, itemsJudged).flatMap((item) => check(item, " item")))];
}

/** The data of each complete event in a stream of server-sent events (HTML standard, section 9.2.6). */
function eventData(text: string): string[] {
  const events = text.split(/\r?\n\r?\n/);
  return events
    .slice(0, -1)
    .map((event) =>
      event
        .split(/\r?\n/)
        .flatMap((line) => (line.startsWith("data:") ? [line.slice(5).replace(/^ /, "")] : []))
        .join("\n"),
    )
    .filter((data) => data !== "");
}

/** Returns the base paths in a contract, and the empty one. */
export function restBases({ servers }: RestContract): string[] {
  const own = servers.map(({ url, variables }) => {
    const address = url.replace(/\{([^{}]+)\}/g, (_whole, name: string) => variables.get(name)?.default ?? "");
    return URL.canParse(address, "http://host") ? new URL(address, "http://host").pathname.replace(/\/+$/, "") : "";
  });
  return [...new Set([...own, ""])].sort((a, b) => b.length - a.length);
}

/** Returns the contract's path that is closest to an unknown one, with any base path. */
export function nearestPath({ operations }: RestContract, path: string, below: readonly string[]): string | undefined {
  const base = below.find((each) => path.startsWith(`${each}/`)) ?? "";
  const written = path.slice(base.length);
  const parts = written.split("/");
  // Parameters take the values of the request, so that only names are compared.
  const filled = new Map(
    operations.map((each) => [
      each.path
        .split("/")
        .map((part, at) => (part.startsWith("{") ? (parts[at] ?? part) : part))
        .join("/"),
      each.path,
    ]),
  );
  const [found] = nearest(written, filled.keys());
  return found === undefined ? undefined : filled.get(found);
}
