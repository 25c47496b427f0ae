import { authorized } from "./authorized.js";
import type { Conversion } from "./bodies.js";
import { supplied, type CallOptions, type Connection, type ConnectionOptions } from "./connection.js";
import { excerpt } from "./excerpt.js";
import { exchange, jsonOf, startHeaders, type Exchanged } from "./exchange.js";
import { failure, isFailure, type GraphqlError } from "./failure.js";

/** One GraphQL operation: its text, and the types of its variables and response. */
export interface GraphqlOperation<Answer, Variables, Whole = Answer> {
  readonly kind: "query" | "mutation" | "subscription";
  readonly name: string;
  readonly text: string;
  /** The id of the text in the manifest. */
  readonly id?: string;
  /** Never set: carries the types. */
  readonly types?: (variables: Variables) => Answer;
  /** Never set: carries the type of a response with all fragments visible. */
  readonly whole?: Whole;
}

/** The options of a GraphQL connection besides those of every connection. */
export interface GraphqlOptions extends ConnectionOptions {
  /** Credentials for every call. */
  readonly auth?: { readonly bearer?: ConnectionOptions["baseUrl"] } | undefined;
  /** How queries are sent. With "GET", caches between app and server can store responses. Mutations always use POST. */
  readonly queriesBy?: "POST" | "GET" | undefined;
  /** What is sent for an operation: its text, or its id if it has one. For ids, the server needs the manifest. */
  readonly sends?: "text" | "id" | undefined;
  /** The transport of subscriptions. Default: server-sent events; otherwise `overWebSocket(…)`. */
  readonly subscriptions?: Subscriptions | undefined;
}

/** A connection to a GraphQL endpoint. */
export interface GraphqlConnection extends Connection, Pick<GraphqlOptions, "queriesBy" | "sends" | "subscriptions"> {}

/** How the values of one operation differ from their form in JSON. */
export interface GraphqlWays {
  readonly answer?: Pick<Conversion, "decode">;
  readonly variables?: Pick<Conversion, "encode">;
  readonly parse?: (text: string) => unknown;
  readonly stringify?: (value: unknown) => string;
  /** Makes a form from a request whose variables contain files. */
  readonly form?: (payload: GraphqlPayload, stringify: (value: unknown) => string) => FormData | undefined;
}

/** The JSON of a request (GraphQL over HTTP, section 5.1). */
export interface GraphqlPayload {
  readonly query?: string;
  readonly documentId?: string;
  readonly operationName: string;
  readonly variables: unknown;
}

/** The JSON of a response (GraphQL specification, section 7.1). */
export interface GraphqlResult {
  readonly data?: unknown;
  readonly errors?: readonly GraphqlError[];
}

/** One operation that is about to be sent. */
export interface Subscribed {
  readonly connection: GraphqlConnection;
  /** "contract.call". */
  readonly call: string;
  readonly payload: GraphqlPayload;
  readonly options: CallOptions | undefined;
  readonly ways: GraphqlWays;
}

/** Transports a subscription: returns its results until it is complete or the consumer stops. */
export type Subscriptions = (subscribed: Subscribed) => AsyncGenerator<GraphqlResult, void, undefined>;

/** Sends a query or mutation. Returns its data, or throws its failure. */
export async function execute<Answer, Variables>(
  connection: GraphqlConnection,
  operation: GraphqlOperation<Answer, Variables, unknown>,
  variables: Variables,
  options?: CallOptions,
  ways: GraphqlWays = {},
): Promise<Answer> {
  const call = callName(connection, operation.name);
  let exchanged: Exchanged | undefined;
  try {
    const accept = "application/graphql-response+json, application/json;q=0.9";
    const payload = payloadOf(connection, operation, variables, ways);
    const byGet = operation.kind === "query" && connection.queriesBy === "GET";
    exchanged = await request({ connection, call, payload, options, ways }, accept, byGet);
    const result = await readResult(call, exchanged, ways.parse ?? connection.json.parse);
    return dataOf(call, result, ways) as Answer;
  } catch (error) {
    if (isFailure(error)) connection.onFailure?.(error);
    throw error;
  } finally {
    exchanged?.done();
  }
}

/** The name of an operation's call in failures and hooks. */
export function callName(connection: Connection, operation: string): string {
  return `${connection.contract}.${operation.charAt(0).toLowerCase()}${operation.slice(1)}`;
}

/** The JSON that is sent for an operation. */
export function payloadOf<Variables>(
  { sends }: GraphqlConnection,
  { name, text, id }: Pick<GraphqlOperation<unknown, Variables>, "name" | "text" | "id">,
  variables: Variables,
  { variables: conversion }: GraphqlWays,
): GraphqlPayload {
  const document = sends === "id" && id !== undefined ? { documentId: id } : { query: text };
  return { ...document, operationName: name, variables: conversion ? conversion.encode(variables) : variables };
}

/** Sends a request (GraphQL over HTTP, sections 5.3 and 5.4; files as a multipart form). */
export async function request(
  { connection, call, payload, options, ways }: Subscribed,
  accept: string,
  byGet = false,
): Promise<Exchanged> {
  const { stringify = connection.json.stringify, form } = ways;
  const url = await supplied(connection.baseUrl);
  return authorized(
    connection,
    [["bearer"]],
    async (authorize) => {
      const headers = await startHeaders(connection, options, call);
      headers.set("accept", accept);
      await authorize({ call, headers, query: [] });
      if (byGet) {
        const pairs = Object.entries(payload).map(
          ([name, value]) =>
            `${name}=${encodeURIComponent(typeof value === "string" ? value : jsonOf(call, stringify, value))}`,
        );
        const whole = url + (url.includes("?") ? "&" : "?") + pairs.join("&");
        return exchange(connection, { call, method: "GET", url: whole, headers }, options);
      }
      const files = form?.(payload, stringify);
      if (files === undefined) headers.set("content-type", "application/json");
      // Servers refuse forms that another website could send. This header shows that the form is not one of them.
      else headers.set("graphql-require-preflight", "1");
      return exchange(
        connection,
        { call, method: "POST", url, headers, body: files ?? jsonOf(call, stringify, payload) },
        options,
      );
    },
    options,
  );
}

/** The data of a result without errors. Throws the failure of a result with errors. */
export function dataOf(call: string, { data, errors }: GraphqlResult, { answer }: GraphqlWays): unknown {
  const read = data === undefined || data === null ? null : answer ? answer.decode(data) : data;
  if (errors === undefined && read !== null) return read;
  throw errorsOf(call, errors ?? [], read);
}

/** The failure of a result with errors. */
export function errorsOf(call: string, errors: readonly GraphqlError[], data: unknown = null): Error {
  return failure(call, errors[0]?.message ?? "the response has no data", { status: "errors", errors, data });
}

async function readResult(
  call: string,
  { response, explain }: Exchanged,
  parse: (text: string) => unknown,
): Promise<GraphqlResult> {
  const { status: httpStatus, headers } = response;
  const inPieces = "the server responded in parts, which is not supported; remove @defer and @stream from the query";
  if (/^multipart\/mixed/i.test(headers.get("content-type") ?? "")) {
    await response.body?.cancel();
    throw failure(call, inPieces, { status: "malformed", httpStatus, body: "" });
  }
  let text: string;
  try {
    text = await response.text();
  } catch (error) {
    throw explain(error);
  }
  const result = resultOf(text, parse);
  if (result && "hasNext" in result) throw failure(call, inPieces, { status: "malformed", httpStatus, body: text });
  if (result) return result;
  const told = excerpt(headers, text);
  if (!response.ok)
    throw failure(call, `the server responded with ${String(httpStatus)}: ${told}`, {
      status: "unexpected",
      httpStatus,
      body: text,
      headers,
    });
  throw failure(call, `the response is not a GraphQL result: ${told}`, { status: "malformed", httpStatus, body: text });
}

/** A GraphQL result; undefined for anything else. */
export function resultOf(text: string, parse: (text: string) => unknown): GraphqlResult | undefined {
  try {
    const result = parse(text);
    const isResult = typeof result === "object" && result !== null && ("data" in result || "errors" in result);
    return isResult ? (result as GraphqlResult) : undefined;
  } catch {
    // The caller handles text that is not JSON, because it has neither data nor errors.
    return undefined;
  }
}
