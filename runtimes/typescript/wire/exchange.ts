import { supplied, type CallOptions, type Connection, type Outgoing } from "./connection.js";
import { failure, isFailure } from "./failure.js";
import { fetchFollowing, isHarmless, seesRedirects } from "./redirects.js";

/** What goes out, credentials and standing headers already in place. */
export type Exchange = Omit<Outgoing, "signal">;

/** A response, and what has to be called when its body has been read, or has not. */
export interface Exchanged {
  readonly response: Response;
  readonly done: () => void;
  /** The failure for an error met while reading the body. */
  readonly explain: (error: unknown) => Error;
  /** Told when a piece of a stream is waited for, and when it is there: only that time is limited then. */
  readonly waiting: (isWaiting: boolean) => void;
}

/** A longer time is none: platforms take it for the shortest. */
const longestMs = 2 ** 31 - 1;

/**
 * Headers of the connection and the call, the call's being stronger.
 *
 * @param isNamed whether the app has named the server; another gets none of the connection's that may be a credential
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
 * @throws a failure of the call for what no header can carry: line ends, and characters beyond Latin-1 (RFC 9110,
 * section 5.5). The platform's own error holds the value, which may be a secret, so it is no cause.
 */
function setHeader(headers: Headers, name: string, value: string, call: string): void {
  try {
    headers.set(name, value);
  } catch {
    throw failure(call, `the header \`${name}\` has a value that cannot stand in a header`, { status: "unreachable" });
  }
}

/** A value as JSON. @throws a failure of the call for what JSON has no form for, such as a big integer */
export function jsonOf(call: string, stringify: (value: unknown) => string, value: unknown): string {
  try {
    return stringify(value);
  } catch (error) {
    throw failure(call, "an argument cannot be written as JSON", { status: "unreachable" }, error);
  }
}

/** An address without its query, which may hold a key, and without a user. */
export function shownAddress(url: string): string {
  return url.replace(/[?#].*$/s, "").replace(/\/\/[^/]*@/, "//");
}

/** Why nothing can be asked at an address; "" where it may be good. A host alone would be a folder below the page. */
function addressFault(url: string): string {
  if (/^https?:\/\/[^/]*@/i.test(url)) return "holds a user or a password; give them as a credential";
  return /^\/\/|^(?!https?:\/\/|\.{1,2}\/)[^/]*[.:]/i.test(url) ? "has to begin with https:// or /" : "";
}

/** One HTTP exchange, ended by the time limit or the app's signal; every error becomes a failure. */
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
      aborted: "the app gave up",
      "timed-out": `no answer within ${String(limitMs)} ms`,
      unreachable: isAnswered ? `the answer to ${asked} broke off` : unreached,
    };
    const status = reason ?? "unreachable";
    // The platform's words about an address without a host hold all of it, its query too.
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
