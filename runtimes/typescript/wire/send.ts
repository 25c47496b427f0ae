import type { Body, Conversion } from "./bodies.js";
import { supplied, type CallOptions, type Connection } from "./connection.js";
import { exchange, startHeaders, type Exchanged } from "./exchange.js";
import { failure } from "./failure.js";

/** How the body of a declared status is read; the last ones come item by item. */
export type ReadAs =
  "json" | "text" | "bytes" | "none" | "lines" | "sequence" | "events" | "eventTexts" | "eventRecords";

/** One REST call, as generated code describes it. */
export interface RestRequest<Answer> {
  /** "contract.call", carried by failures. */
  readonly call: string;
  readonly method: string;
  /** The path with its parameters already written in. */
  readonly path: string;
  /** The server of this call alone: an address, or a path on the connection's host. */
  readonly server?: string;
  /** Pairs as they stand in the URL; empty ones are left out. */
  readonly query?: readonly string[];
  readonly headers?: Readonly<Record<string, string | undefined>>;
  /** Pairs as they stand in the cookie header, which browsers fill themselves and leave alone. */
  readonly cookies?: readonly string[];
  readonly body?: Body | undefined;
  readonly accept?: string;
  /** Alternatives of schemes needed together. */
  readonly auth?: readonly (readonly string[])[];
  /** By status, range ("2XX") or "default". */
  readonly answers: Readonly<Record<string, ReadAs>>;
  readonly failures?: Readonly<Record<string, ReadAs>>;
  /** Turns bodies into what the app has, by status as in `answers` and `failures`. */
  readonly conversions?: Readonly<Record<string, Pick<Conversion, "decode">>>;
  /** Parses JSON, where plain parsing loses digits. */
  readonly parse?: (text: string) => unknown;
  /** Never set: carries the type. */
  readonly types?: Answer;
}

/** Performs one REST call: the declared answer, or a failure is thrown. */
export async function send<Answer>(
  connection: Connection,
  request: RestRequest<Answer>,
  options?: CallOptions,
): Promise<Answer> {
  const exchanged = await begin(connection, request, options);
  try {
    const success = await answered(exchanged, request);
    return (await readBody(exchanged, success, request)) as Answer;
  } finally {
    exchanged.done();
  }
}

/** Sends a request with its credentials, and gives what comes back before its body is read. */
export async function begin<Answer>(
  connection: Connection,
  request: RestRequest<Answer>,
  options: CallOptions | undefined,
): Promise<Exchanged> {
  const headers = await startHeaders(connection, options);
  for (const [name, value] of Object.entries(request.headers ?? {})) if (value !== undefined) headers.set(name, value);
  if (request.accept !== undefined && !headers.has("accept")) headers.set("accept", request.accept);
  if (request.body?.type !== undefined) headers.set("content-type", request.body.type);
  const cookies = (request.cookies ?? []).filter((pair) => pair !== "");
  if (cookies.length > 0) headers.set("cookie", cookies.join("; "));
  const query = (request.query ?? []).filter((part) => part !== "");
  await authorize(connection, request.auth ?? [], { headers, query });
  const base = (await baseOf(connection, request.server)).replace(/\/+$/, "");
  // Some contracts write a fixed query into the path itself.
  const mark = request.path.includes("?") ? "&" : "?";
  const url = base + request.path + (query.length > 0 ? mark + query.join("&") : "");
  const exchanged = await exchange(
    connection,
    { call: request.call, method: request.method, url, headers, body: request.body?.data },
    options,
  );
  const { status, headers: received } = exchanged.response;
  options?.onAnswer?.({ status, headers: received });
  return exchanged;
}

async function baseOf(connection: Connection, server: string | undefined): Promise<string> {
  if (server === undefined) return supplied(connection.baseUrl);
  const chosen = connection.servers?.[server];
  if (chosen !== undefined) return supplied(chosen);
  if (/^[a-z][a-z0-9+.-]*:/i.test(server)) return server;
  return new URL(server, `${(await supplied(connection.baseUrl)).replace(/\/+$/, "")}/`).href;
}

async function authorize(
  connection: Connection,
  alternatives: readonly (readonly string[])[],
  into: { headers: Headers; query: string[] },
): Promise<void> {
  const chosen = alternatives.find((schemes) => schemes.every((name) => connection.auth[name] !== undefined));
  for (const name of chosen ?? []) {
    const supplier = connection.auth[name];
    if (supplier !== undefined) connection.schemes[name]?.(await supplied(supplier), into);
  }
}

/** How the answer of a declared success is read; throws the failure of everything else. */
export async function answered<Answer>(exchanged: Exchanged, request: RestRequest<Answer>): Promise<Declared> {
  const { response } = exchanged;
  const { call } = request;
  const httpStatus = response.status;
  const success = response.ok ? declared(request.answers, httpStatus) : undefined;
  if (success !== undefined) return success;
  const failed = declared(request.failures ?? {}, httpStatus);
  const { headers } = response;
  const message = `the server answered ${String(httpStatus)}`;
  if (failed === undefined) {
    const body = await readBody(exchanged, { key: "", status: 0, readAs: "text" }, request);
    throw failure(call, `${message}, which the contract does not declare`, {
      status: "unexpected",
      httpStatus,
      body,
      headers,
    });
  }
  const body = await readBody(exchanged, failed, request);
  throw failure(call, message, { status: failed.status, httpStatus, body, headers });
}

/** A declared status: its key in the request's tables, and what failures call it. */
export interface Declared {
  readonly key: string;
  readonly status: number | string;
  readonly readAs: ReadAs;
}

function declared(table: Readonly<Record<string, ReadAs>>, httpStatus: number): Declared | undefined {
  for (const key of [String(httpStatus), `${String(Math.floor(httpStatus / 100))}XX`, "default"]) {
    const readAs = table[key];
    if (readAs !== undefined) return { key, status: key === String(httpStatus) ? httpStatus : key, readAs };
  }
  // An undeclared success is read like the only declared one.
  const [only, ...more] = Object.entries(table);
  return httpStatus < 300 && only !== undefined && more.length === 0
    ? { key: only[0], status: httpStatus, readAs: httpStatus === 204 ? "none" : only[1] }
    : undefined;
}

/** The whole body, as its form has it; a stream where one value is wanted is its text. */
export async function readBody(
  { response, explain }: Exchanged,
  { key, readAs }: Declared,
  { call, parse = JSON.parse, conversions }: Pick<RestRequest<unknown>, "call" | "parse" | "conversions">,
): Promise<unknown> {
  let text: string;
  try {
    if (readAs === "bytes") return await response.blob();
    text = await response.text();
  } catch (error) {
    throw explain(error);
  }
  if (readAs === "none") return undefined;
  const decode = conversions?.[key]?.decode ?? ((value: unknown) => value);
  if (readAs !== "json") return decode(text);
  let value: unknown;
  try {
    value = parse(text);
  } catch (error) {
    throw failure(
      call,
      `the answer (${String(response.status)}) is not JSON`,
      { status: "malformed", httpStatus: response.status, body: text },
      error,
    );
  }
  return decode(value);
}
