import { authorized, type Authorize } from "./authorized.js";
import type { Body, Conversion } from "./bodies.js";
import { supplied, type CallOptions, type Connection, type Credentials } from "./connection.js";
import { exchange, jsonOf, startHeaders, type Exchanged } from "./exchange.js";
import { excerpt } from "./excerpt.js";
import { failure, isFailure, unsendable } from "./failure.js";

/** How the body of a declared status is read. The last five arrive item by item. */
export type ReadAs =
  "json" | "text" | "bytes" | "none" | "lines" | "sequence" | "events" | "eventTexts" | "eventRecords";

/** The server of a call that does not use the connection's server. */
export interface OwnServer {
  readonly url: string;
  /** Whether the app has chosen it, or another address of its origin. Only then it gets credentials. */
  readonly isNamed: boolean;
}

/** One REST call, as generated code describes it. */
export interface RestRequest<Answer> {
  /** "contract.call", for failures. */
  readonly call: string;
  readonly method: string;
  /** The path, with its parameters filled in. */
  readonly path: string;
  /** The address of this call, if it has a server of its own. */
  readonly base?: Promise<OwnServer>;
  /** Encoded pairs for the URL. Empty ones are left out. */
  readonly query?: readonly string[];
  readonly headers?: Readonly<Record<string, string | undefined>>;
  readonly body?: Body | undefined;
  readonly accept?: string;
  /** Alternatives, each a list of schemes that are needed together. */
  readonly auth?: readonly (readonly string[])[];
  /** By status, range ("2XX") or "default". */
  readonly answers: Readonly<Record<string, ReadAs>>;
  readonly failures?: Readonly<Record<string, ReadAs>>;
  /** Converts bodies for the app, by status as in `answers` and `failures`; "failed default" if both have "default". */
  readonly conversions?: Readonly<Record<string, Pick<Conversion, "decode">>>;
  /** Parses JSON if plain parsing would lose digits. */
  readonly parse?: (text: string) => unknown;
  /** Never set: carries the type. */
  readonly types?: Answer;
}

/** Performs one REST call. Returns the declared response, or throws a failure. */
export async function send<Answer>(
  connection: Connection,
  request: RestRequest<Answer>,
  options?: CallOptions,
): Promise<Answer> {
  let exchanged: Exchanged | undefined;
  try {
    exchanged = await begin(connection, request, options);
    const success = await answered(connection, exchanged, request);
    return (await readBody(connection, exchanged, success, request)) as Answer;
  } catch (error) {
    throw told(connection, error);
  } finally {
    exchanged?.done();
  }
}

/** Reports a failure to the app before it is thrown. */
export function told(connection: Connection, error: unknown): unknown {
  if (isFailure(error)) connection.onFailure?.(error);
  return error;
}

/** Sends a request with its credentials. Returns the response before its body is read. */
export async function begin<Answer>(
  connection: Connection,
  request: RestRequest<Answer>,
  options: CallOptions | undefined,
): Promise<Exchanged> {
  const attempt = (authorize: Authorize): Promise<Exchanged> => sendOnce(connection, request, options, authorize);
  return authorized(connection, request.auth ?? [], attempt, options, !request.body?.duplex);
}

async function sendOnce<Answer>(
  connection: Connection,
  { call, method, path, base, body, headers: own, accept, query: pairs = [] }: RestRequest<Answer>,
  options: CallOptions | undefined,
  authorize: Authorize,
): Promise<Exchanged> {
  // Platforms resolve such segments, encoded or not (WHATWG URL, section 4.4), and would request another path.
  if (/\/(\.|%2e){1,2}(?=[/?]|$)/i.test(path))
    throw failure(call, "an argument `.` or `..` would change the path", { status: "unreachable" });
  const lacking = [path, ...pairs].find((part) => part.includes(unsendable));
  if (lacking !== undefined) {
    const [before = "", name = ""] = lacking.split(unsendable);
    // In a path, the mark is followed by the name. In a query, the name comes before it.
    const which = lacking === path ? name : before.split("=")[0];
    const what = which === "" ? "an argument" : `the argument \`${String(which)}\``;
    throw failure(call, `${what} is empty or contains half a character`, { status: "unreachable" });
  }
  const { url: start, isNamed } = (await base) ?? { url: await supplied(connection.baseUrl), isNamed: true };
  const headers = await startHeaders(connection, options, call, isNamed);
  try {
    for (const [name, value] of Object.entries(own ?? {})) if (value !== undefined) headers.set(name, value);
  } catch (error) {
    // Line endings and characters beyond Latin-1 (RFC 9110, section 5.5).
    throw failure(call, "an argument is not valid in a header", { status: "unreachable" }, error);
  }
  if (accept !== undefined && !headers.has("accept")) headers.set("accept", accept);
  if (body?.type !== undefined) headers.set("content-type", body.type);
  const query = pairs.filter((part) => part !== "");
  const into: Credentials = { call, headers, query };
  if (isNamed) await authorize(into);
  const root = start.replace(/\/+$/, "");
  // Some contracts write a fixed query into the path.
  const url = root + path + (query.length > 0 ? (path.includes("?") ? "&" : "?") + query.join("&") : "");
  const data = body && "json" in body ? jsonOf(call, connection.json.stringify, body.json) : await body?.data;
  return exchange(
    connection,
    { call, method, url, headers, body: data, duplex: body?.duplex, hasKey: into.hasKey },
    options,
  );
}

/** How the body of a declared success is read. Throws the failure of every other status. */
export async function answered<Answer>(
  connection: Connection,
  exchanged: Exchanged,
  request: RestRequest<Answer>,
): Promise<Declared> {
  const { response } = exchanged;
  const { call } = request;
  const httpStatus = response.status;
  const success = response.ok
    ? (declared(request.answers, httpStatus) ?? onlyDeclared(request.answers, httpStatus))
    : undefined;
  if (success !== undefined) return success;
  const failed = declared(request.failures ?? {}, httpStatus);
  const { headers } = response;
  const message = `the server responded with ${String(httpStatus)}`;
  if (failed === undefined) {
    const text = await readBody(connection, exchanged, { key: "", status: 0, readAs: "text" }, request);
    const body = String(text);
    const words = wordsOf(parsed(body)) || `: ${excerpt(headers, body)}`;
    throw failure(call, `${message}, which the contract does not declare${words}`, {
      status: "unexpected",
      httpStatus,
      body,
      headers,
    });
  }
  // If only `default` is declared, it describes both successes and failures.
  const key = failed.key in request.answers ? `failed ${failed.key}` : failed.key;
  const { body, words = wordsOf(body), cause } = await readFailure(connection, exchanged, { ...failed, key }, request);
  throw failure(call, message + words, { status: failed.status, httpStatus, body, headers }, cause);
}

/** The body of a declared failure. If it is not JSON but should be, it stays text, and the failure keeps its status. */
async function readFailure(
  connection: Connection,
  exchanged: Exchanged,
  declared: Declared,
  request: Pick<RestRequest<unknown>, "call" | "parse" | "conversions">,
): Promise<{ readonly body: unknown; readonly words?: string; readonly cause?: unknown }> {
  try {
    return { body: await readBody(connection, exchanged, declared, request) };
  } catch (error) {
    const { status, body, cause } = error as { status?: unknown; body?: unknown; cause?: unknown };
    if (status !== "malformed" || typeof body !== "string" || parsed(body) !== undefined) throw error;
    return { body, words: `: ${excerpt(exchanged.response.headers, body)}`, cause };
  }
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    // A body that is not JSON has no fields to describe the failure.
    return undefined;
  }
}

/** The body's description of the failure, if it has the form of problem details (RFC 9457, section 3.1). */
function wordsOf(body: unknown): string {
  const { title, detail = title } = Object(body) as { title?: unknown; detail?: unknown };
  return typeof detail === "string" ? `: ${detail}` : "";
}

/** A declared status: its key in the tables of the request, and its value in failures. */
export interface Declared {
  readonly key: string;
  readonly status: number | string;
  readonly readAs: ReadAs;
}

function declared(table: Readonly<Record<string, ReadAs>>, httpStatus: number): Declared | undefined {
  for (const key of [String(httpStatus), `${String(Math.floor(httpStatus / 100))}XX`, "default"]) {
    const readAs = table[key];
    if (readAs !== undefined)
      return {
        key,
        status: key === String(httpStatus) ? httpStatus : key,
        // A 204 has no body, whatever the contract declares (RFC 9110, section 15.3.5).
        readAs: httpStatus === 204 ? "none" : readAs,
      };
  }
  return undefined;
}

/** An undeclared success is read like the only declared one. */
function onlyDeclared(table: Readonly<Record<string, ReadAs>>, httpStatus: number): Declared | undefined {
  const [only, ...more] = Object.entries(table);
  return only !== undefined && more.length === 0
    ? { key: only[0], status: httpStatus, readAs: httpStatus === 204 ? "none" : only[1] }
    : undefined;
}

/**
 * The whole body, in its declared form. If one value is expected, a stream is its text.
 *
 * @throws the failure of the call if the body is cut off or is not what the contract declares
 */
export async function readBody(
  { json }: Connection,
  { response, explain }: Exchanged,
  { key, readAs }: Declared,
  { call, parse = json.parse, conversions }: Pick<RestRequest<unknown>, "call" | "parse" | "conversions">,
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
  try {
    return decode(readAs === "json" ? parse(text) : text);
  } catch (error) {
    const isJson = readAs !== "json" || parsed(text) !== undefined;
    const why = isJson ? (error instanceof Error ? error.message : String(error)) : excerpt(response.headers, text);
    throw failure(
      call,
      `the response (${String(response.status)}) cannot be read${isJson ? "" : " as JSON"}: ${why}`,
      { status: "malformed", httpStatus: response.status, body: text },
      error,
    );
  }
}
