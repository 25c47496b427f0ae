import type { Body } from "./bodies.js";
import { supplied, type CallOptions, type Connection } from "./connection.js";
import { exchange, startHeaders, type Exchanged } from "./exchange.js";
import { failure } from "./failure.js";

/** How the body of a declared status is read. */
export type ReadAs = "json" | "text" | "bytes" | "none";

/** One REST call, as generated code describes it. */
export interface RestRequest<Answer> {
  /** "contract.call", carried by failures. */
  readonly call: string;
  readonly method: string;
  /** The path with its parameters already written in. */
  readonly path: string;
  /** Pairs as they stand in the URL; empty ones are left out. */
  readonly query?: readonly string[];
  readonly headers?: Readonly<Record<string, string | undefined>>;
  readonly body?: Body | undefined;
  readonly accept?: string;
  /** Alternatives of schemes needed together. */
  readonly auth?: readonly (readonly string[])[];
  /** By status, range ("2XX") or "default". */
  readonly answers: Readonly<Record<string, ReadAs>>;
  readonly failures?: Readonly<Record<string, ReadAs>>;
  /** Turns the body as it was read into the answer. */
  readonly decode?: (body: unknown) => Answer;
}

/** Performs one REST call: the declared answer, or a failure is thrown. */
export async function send<Answer>(
  connection: Connection,
  request: RestRequest<Answer>,
  options?: CallOptions,
): Promise<Answer> {
  const headers = await startHeaders(connection, options);
  for (const [name, value] of Object.entries(request.headers ?? {})) if (value !== undefined) headers.set(name, value);
  if (request.accept !== undefined && !headers.has("accept")) headers.set("accept", request.accept);
  if (request.body?.type !== undefined) headers.set("content-type", request.body.type);
  const query = (request.query ?? []).filter((part) => part !== "");
  await authorize(connection, request.auth ?? [], { headers, query });
  const base = (await supplied(connection.baseUrl)).replace(/\/+$/, "");
  // Some contracts write a fixed query into the path itself.
  const mark = request.path.includes("?") ? "&" : "?";
  const url = base + request.path + (query.length > 0 ? mark + query.join("&") : "");
  const exchanged = await exchange(
    connection,
    { call: request.call, method: request.method, url, headers, body: request.body?.data },
    options,
  );
  try {
    return await readAnswer(exchanged, request);
  } finally {
    exchanged.done();
  }
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

async function readAnswer<Answer>(exchanged: Exchanged, request: RestRequest<Answer>): Promise<Answer> {
  const { response } = exchanged;
  const { call } = request;
  const httpStatus = response.status;
  const answered = response.ok ? declared(request.answers, httpStatus) : undefined;
  if (answered !== undefined) {
    const body = await readBody(exchanged, answered.readAs, call);
    return request.decode ? request.decode(body) : (body as Answer);
  }
  const failed = declared(request.failures ?? {}, httpStatus);
  const { headers } = response;
  const message = `the server answered ${String(httpStatus)}`;
  if (failed === undefined) {
    const body = await readBody(exchanged, "text", call);
    throw failure(call, `${message}, which the contract does not declare`, {
      status: "unexpected",
      httpStatus,
      body,
      headers,
    });
  }
  const body = await readBody(exchanged, failed.readAs, call);
  throw failure(call, message, { status: failed.status, httpStatus, body, headers });
}

function declared(
  table: Readonly<Record<string, ReadAs>>,
  httpStatus: number,
): { status: number | string; readAs: ReadAs } | undefined {
  for (const key of [String(httpStatus), `${String(Math.floor(httpStatus / 100))}XX`, "default"]) {
    const readAs = table[key];
    if (readAs !== undefined) return { status: key === String(httpStatus) ? httpStatus : key, readAs };
  }
  // An undeclared success is read like the only declared one.
  const [only, ...more] = Object.values(table);
  return httpStatus < 300 && only !== undefined && more.length === 0
    ? { status: httpStatus, readAs: httpStatus === 204 ? "none" : only }
    : undefined;
}

async function readBody({ response, explain }: Exchanged, readAs: ReadAs, call: string): Promise<unknown> {
  let text: string;
  try {
    if (readAs === "bytes") return await response.blob();
    text = await response.text();
  } catch (error) {
    throw explain(error);
  }
  if (readAs === "none") return undefined;
  if (readAs === "text") return text;
  try {
    return JSON.parse(text) as unknown;
  } catch (error) {
    throw failure(
      call,
      `the answer (${String(response.status)}) is not JSON`,
      { status: "malformed", httpStatus: response.status, body: text },
      error,
    );
  }
}
