import { supplied, type CallOptions, type Connection, type Outgoing } from "./connection.js";
import { failure, isFailure } from "./failure.js";
import { fetchFollowing, isHarmless, seesRedirects } from "./redirects.js";

/** The request, with its credentials and shared headers. */
export type Exchange = Omit<Outgoing, "signal">;

/** A response, with functions to call after its body was read or reading it failed. */
export interface Exchanged {
  readonly response: Response;
  readonly done: () => void;
  /** The failure for an error while reading the body. */
  readonly explain: (error: unknown) => Error;
  /**
   * Called when the app waits for a piece of a stream, and when the piece is there. Only this waiting time is limited.
   */
  readonly waiting: (isWaiting: boolean) => void;
}

/** Platforms treat a longer time as no time at all. */
const longestMs = 2 ** 31 - 1;

/**
 * The headers of the connection and of the call. The call's headers override.
 *
 * @param isNamed whether the app has chosen the server. Another server gets no header of the connection that may be a
 * credential
 */
export async function startHeaders(
  connection: Connection,
  options: CallOptions | undefined,
  call: string,
  isNamed = true,
): Promise<Headers> {
  const standing = connection.headers === undefined ? {} : await supplied(connection.headers);
  const headers = new Headers();
  for (const [name, value] of Object.entries(standing))
    if (isNamed || isHarmless(name)) setHeader(headers, name, value, call);
  for (const [name, value] of Object.entries(options?.headers ?? {})) setHeader(headers, name, value, call);
  return headers;
}

/**
 * Sets a header.
 *
 * @throws the failure of the call if the value is not valid in a header: line endings, and characters beyond Latin-1
 * (RFC 9110, section 5.5). The platform's error contains the value, which may be a secret, so the failure has no cause
 */
function setHeader(headers: Headers, name: string, value: string, call: string): void {
  try {
    headers.set(name, value);
  } catch {
    throw failure(call, `the value of the header \`${name}\` is not valid`, { status: "unreachable" });
  }
}

/**
 * A value as JSON.
 *
 * @throws the failure of the call for a value that JSON cannot express, such as a big integer
 */
export function jsonOf(call: string, stringify: (value: unknown) => string, value: unknown): string {
  try {
    return stringify(value);
  } catch (error) {
    throw failure(call, "an argument cannot be written as JSON", { status: "unreachable" }, error);
  }
}

/** An address without its query, which may contain a key, and without a user. */
export function shownAddress(url: string): string {
  return url.replace(/[?#].*$/s, "").replace(/\/\/[^/]*@/, "//");
}

/** Why an address is not valid; "" if it may be valid. A host without a scheme would be a folder below the page. */
function addressFault(url: string): string {
  if (/^https?:\/\/[^/]*@/i.test(url)) return "contains a user or a password; use a credential instead";
  return /^\/\/|^(?!https?:\/\/|\.{1,2}\/)[^/]*[.:]/i.test(url) ? "must begin with https:// or /" : "";
}

/**
 * One HTTP request, which ends with the time limit or the app's signal. Every error becomes a failure.
 *
 * @throws the failure of the call: an invalid base URL, no response, a timeout, or the app's signal
 */
export async function exchange(
  connection: Connection,
  request: Exchange,
  options: CallOptions | undefined,
): Promise<Exchanged> {
  const fault = addressFault(request.url);
  if (fault !== "")
    throw failure(request.call, `the base URL of ${shownAddress(request.url)} ${fault}`, { status: "unreachable" });
  const controller = new AbortController();
  let reason: "aborted" | "timed-out" | undefined;
  const stop = (why: "aborted" | "timed-out") => (): void => {
    reason ??= why;
    controller.abort();
  };
  const signal = options?.signal;
  const abort = stop("aborted");
  signal?.addEventListener("abort", abort);
  if (signal?.aborted) abort();
  let limitMs: number | undefined;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const limit = (milliseconds: number | false | undefined): void => {
    clearTimeout(timer);
    const isLimited = typeof milliseconds === "number" && milliseconds > 0 && milliseconds <= longestMs;
    if (isLimited) timer = setTimeout(stop("timed-out"), (limitMs = milliseconds));
  };
  limit(options?.timeoutMs ?? connection.timeoutMs);
  const done = (): void => {
    clearTimeout(timer);
    signal?.removeEventListener("abort", abort);
  };
  let isAnswered = false;
  const explain = (error: unknown): Error => {
    const asked = `${request.method} ${shownAddress(request.url)}`;
    const isBare = !/^https?:/i.test(request.url) && seesRedirects();
    const unreached = `${asked} could not be reached${isBare ? ": its base URL has no host" : ""}`;
    const messages = {
      aborted: "the app cancelled the call",
      "timed-out": `no response within ${String(limitMs)} ms`,
      unreachable: isAnswered ? `the response to ${asked} was cut off` : unreached,
    };
    const status = reason ?? "unreachable";
    // The platform's message about an address without a host contains the whole address, with its query.
    const cause: unknown = status === "aborted" ? (signal?.reason ?? error) : isBare ? undefined : error;
    return failure(request.call, messages[status], { status }, cause);
  };
  const perform = connection.around.reduceRight<(outgoing: Outgoing) => Promise<Response>>(
    (next, layer) => (outgoing) => layer(outgoing, next),
    (outgoing) => fetchFollowing(connection, outgoing),
  );
  try {
    const response = await perform({ ...request, signal: controller.signal });
    isAnswered = true;
    const waiting = (isWaiting: boolean): void => {
      limit(isWaiting && options?.idleMs);
    };
    return { response, done, explain, waiting };
  } catch (error) {
    done();
    throw isFailure(error) ? error : explain(error);
  }
}
