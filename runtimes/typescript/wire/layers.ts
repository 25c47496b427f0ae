import type { Layer, Outgoing, RenewableSupplier } from "./connection.js";

/** The options of `retrying`. */
export interface Retrying {
  /** The largest number of retries. Default: 2. */
  readonly times?: number;
  /** Milliseconds before the first retry, doubled for each further one, with some random variation. Default: 300. */
  readonly pauseMs?: number;
  /** The longest pause in milliseconds. If a server requires a longer one, there is no retry. Default: 20,000. */
  readonly longestPauseMs?: number;
  /** Statuses of temporary failures. */
  readonly statuses?: readonly number[];
  /** Whether PUT and DELETE are retried too. Sending them twice has the same effect as sending them once. */
  readonly idempotent?: boolean;
}

/** Methods that change nothing on the server (RFC 9110, section 9.2.1). */
const safeMethods = ["GET", "HEAD", "OPTIONS", "TRACE", "QUERY"];
/** Methods that have the same effect however often they are sent (RFC 9110, section 9.2.2). */
const idempotentMethods = [...safeMethods, "PUT", "DELETE"];

/**
 * Retries safe requests that could not be sent or whose response has the status of a temporary failure. The pause is
 * the one in the response's `Retry-After` (RFC 9110, section 10.2.3), otherwise it grows with each retry.
 */
export function retrying(given: Retrying = {}): Layer {
  const { times = 2, pauseMs = 300, longestPauseMs = 20_000, statuses = [429, 502, 503, 504] } = given;
  const methods = given.idempotent === true ? idempotentMethods : safeMethods;
  return async (request, next) => {
    // A stream can be sent only once.
    if (!methods.includes(request.method) || request.duplex !== undefined) return next(request);
    for (let tries = 0; ; tries++) {
      const grown = pauseMs * 2 ** tries * (0.75 + Math.random() / 2);
      let pause = grown;
      try {
        const response = await next(request);
        if (!statuses.includes(response.status) || tries >= times) return response;
        pause = pauseOf(response.headers) ?? grown;
        if (pause > longestPauseMs) return response;
        await response.body?.cancel();
      } catch (error) {
        if (request.signal.aborted || tries >= times) throw error;
      }
      await paused(Math.min(pause, longestPauseMs), request.signal);
    }
  };
}

/** Milliseconds that a server requires to wait: from a number of seconds, or from a date-time. */
function pauseOf(headers: Headers): number | undefined {
  const said = headers.get("retry-after");
  if (said === null) return undefined;
  const ms = /^\d+$/.test(said) ? Number(said) * 1000 : Date.parse(said) - Date.now();
  return Number.isNaN(ms) ? undefined : Math.max(0, ms);
}

function paused(ms: number, signal: AbortSignal): Promise<void> {
  return new Promise((resolve, reject) => {
    const stop = (): void => {
      clearTimeout(timer);
      reject(new Error("cancelled while waiting for a retry"));
    };
    const timer = setTimeout(() => {
      signal.removeEventListener("abort", stop);
      resolve();
    }, ms);
    signal.addEventListener("abort", stop, { once: true });
    if (signal.aborted) stop();
  });
}

/** Calls a function before every request. The function can change the headers. */
export function eachRequest(look: (request: Outgoing) => void | Promise<void>): Layer {
  return async (request, next) => {
    await look(request);
    return next(request);
  };
}

/** Calls a function after every response, before its body is read. To read the body, the function uses a `clone()`. */
export function eachAnswer(look: (response: Response, request: Outgoing) => void | Promise<void>): Layer {
  return async (request, next) => {
    const response = await next(request);
    await look(response, request);
    return response;
  };
}

/**
 * Fetches a credential when it is first needed, and again when the server rejects it with 401. It is fetched once,
 * however many calls wait for it. Each of them is then sent a second time, and never a third.
 *
 * @param get returns the credential. Its argument is the one that was rejected
 */
export function renewable(get: (rejected?: string) => string | Promise<string>): RenewableSupplier {
  let current: Promise<string> | undefined;
  /** The result of `current`. */
  let known: string | undefined;
  const ask = (rejected?: string): Promise<string> => {
    known = undefined;
    const asked = (async () => (rejected === undefined ? get() : get(rejected)))();
    current = asked;
    asked.then(
      (credential) => {
        if (current === asked) known = credential;
      },
      () => {
        // The next call tries again to fetch a credential that could not be fetched.
        if (current === asked) current = undefined;
      },
    );
    return asked;
  };
  return Object.assign(() => current ?? ask(), {
    renew: async (rejected: string) =>
      (await (current === undefined || known === rejected ? ask(rejected) : current)) !== rejected,
  });
}
