import type { Layer, Outgoing, RenewableSupplier } from "./connection.js";

/** What `retrying` may be told. */
export interface Retrying {
  /** How often a request is sent again at most; 2 when absent. */
  readonly times?: number;
  /** Milliseconds before the second try, doubled before each further one, and varied; 300 when absent. */
  readonly pauseMs?: number;
  /** The longest pause; a server that asks for a longer one gets no further try. 20,000 when absent. */
  readonly longestPauseMs?: number;
  /** Statuses that may pass by themselves. */
  readonly statuses?: readonly number[];
  /** Whether PUT and DELETE are sent again too: done twice, they change no more than done once. */
  readonly idempotent?: boolean;
}

/** Methods that change nothing on the server (RFC 9110, section 9.2.1). */
const safeMethods = ["GET", "HEAD", "OPTIONS", "TRACE", "QUERY"];
/** Methods that change the same, however often they are sent (RFC 9110, section 9.2.2). */
const idempotentMethods = [...safeMethods, "PUT", "DELETE"];

/**
 * Sends safe requests again that could not be delivered, or were answered with a status that may pass by itself, after
 * the pause that the server asks for in `Retry-After` (RFC 9110, section 10.2.3), else after growing pauses.
 */
export function retrying(given: Retrying = {}): Layer {
  const { times = 2, pauseMs = 300, longestPauseMs = 20_000, statuses = [429, 502, 503, 504] } = given;
  const methods = given.idempotent === true ? idempotentMethods : safeMethods;
  return async (request, next) => {
    // A stream is gone once it is sent.
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

/** Milliseconds that a server asks to wait: a number of seconds, or until an instant. */
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
      reject(new Error("given up while waiting for another try"));
    };
    const timer = setTimeout(() => {
      signal.removeEventListener("abort", stop);
      resolve();
    }, ms);
    signal.addEventListener("abort", stop, { once: true });
    if (signal.aborted) stop();
  });
}

/** Calls back before every request, which may then still get other headers. */
export function eachRequest(look: (request: Outgoing) => void | Promise<void>): Layer {
  return async (request, next) => {
    await look(request);
    return next(request);
  };
}

/** Calls back after every answer, before its body is read; who wants to read it reads a `clone()`. */
export function eachAnswer(look: (response: Response, request: Outgoing) => void | Promise<void>): Layer {
  return async (request, next) => {
    const response = await next(request);
    await look(response, request);
    return response;
  };
}

/**
 * A credential that is got when it is first needed, and got anew when the server rejects it with 401: once, however
 * many calls wait for it. Each of them is then sent a second time, and never a third.
 *
 * @param get gives the credential; it is told which one was rejected
 */
export function renewable(get: (rejected?: string) => string | Promise<string>): RenewableSupplier {
  let current: Promise<string> | undefined;
  /** What `current` became. */
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
        // What could not be got is asked for again by the next call.
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
