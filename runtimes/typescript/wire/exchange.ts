import { supplied, type CallOptions, type Connection, type Outgoing } from "./connection.js";
import { failure, isFailure } from "./failure.js";

/** What goes out, credentials and standing headers already in place. */
export type Exchange = Omit<Outgoing, "signal">;

/** A response, and what has to be called when its body has been read, or has not. */
export interface Exchanged {
  readonly response: Response;
  readonly done: () => void;
  /** The failure for an error met while reading the body. */
  readonly explain: (error: unknown) => Error;
}

/** Headers of the connection and the call, the call's being stronger. */
export async function startHeaders(connection: Connection, options: CallOptions | undefined): Promise<Headers> {
  const headers = new Headers(connection.headers === undefined ? {} : await supplied(connection.headers));
  for (const [name, value] of Object.entries(options?.headers ?? {})) headers.set(name, value);
  return headers;
}

/** One HTTP exchange, ended by the time limit or the app's signal; every error becomes a failure. */
export async function exchange(
  connection: Connection,
  request: Exchange,
  options: CallOptions | undefined,
): Promise<Exchanged> {
  const controller = new AbortController();
  let reason: "aborted" | "timed-out" | undefined;
  const stop = (why: "aborted" | "timed-out") => (): void => {
    reason ??= why;
    controller.abort();
  };
  const abort = stop("aborted");
  const signal = options?.signal;
  signal?.addEventListener("abort", abort);
  if (signal?.aborted) abort();
  const timeoutMs = options?.timeoutMs ?? connection.timeoutMs;
  const timer = timeoutMs === undefined ? undefined : setTimeout(stop("timed-out"), timeoutMs);
  const done = (): void => {
    clearTimeout(timer);
    signal?.removeEventListener("abort", abort);
  };
  const explain = (error: unknown): Error => {
    const message =
      reason === undefined
        ? `${request.method} ${request.url} could not be reached`
        : reason === "aborted"
          ? "the app gave up"
          : `no answer within ${String(timeoutMs)} ms`;
    return failure(request.call, message, { status: reason ?? "unreachable" }, error);
  };
  const perform = connection.around.reduceRight<(outgoing: Outgoing) => Promise<Response>>(
    (next, layer) => (outgoing) => layer(outgoing, next),
    ({ url, method, headers, body, duplex, signal: ends }) => {
      const init = { method, headers, body: body ?? null, signal: ends, ...(duplex && { duplex }) };
      return connection.fetch(url, init);
    },
  );
  try {
    return { response: await perform({ ...request, signal: controller.signal }), done, explain };
  } catch (error) {
    done();
    throw isFailure(error) ? error : explain(error);
  }
}
