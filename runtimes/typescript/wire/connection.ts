/** A value, or a function that gives it when it is needed, also later. */
export type Supplier<T> = T | (() => T | Promise<T>);

export type HeaderValues = Readonly<Record<string, string>>;

/** What `fetch` takes, but for what a call says itself. */
export type FetchInit = Omit<RequestInit, "method" | "headers" | "body" | "signal" | "window">;

/** What every connection takes, whatever the contract. */
export interface ConnectionOptions {
  /** Where the API is, without a trailing slash; asked anew for each call when it is a function. */
  readonly baseUrl?: Supplier<string> | undefined;
  /**
   * Keeps the answers of this connection apart from those of others where an app keeps them, such as the answers that two
   * tenants get. Never sent.
   */
  readonly label?: string | undefined;
  /** Sent with every call. */
  readonly headers?: Supplier<HeaderValues> | undefined;
  /**
   * What every request takes besides, such as `{ credentials: "include" }` for sessions kept in cookies of another origin.
   * With `redirect: "follow"` the platform follows redirects, and decides which credentials go along.
   */
  readonly init?: FetchInit | undefined;
  /** The `fetch` to use; the platform's own when absent. */
  readonly fetch?: typeof globalThis.fetch | undefined;
  /**
   * Milliseconds until a call fails with status "timed-out", all tries included; of a stream, until it begins. No limit
   * when absent, false, 0 or Infinity.
   */
  readonly timeoutMs?: number | false | undefined;
  /** What is done around every exchange, outermost first: `retrying(…)`, `eachRequest(…)`, `eachAnswer(…)`, or your own. */
  readonly around?: readonly Layer[] | undefined;
  /** Told of every failure before the call throws it. */
  readonly onFailure?: ((failure: Error & { readonly call: string }) => void) | undefined;
  /** The text that ends a stream of JSON events without being one; "[DONE]" when absent, false for none. */
  readonly streamEnd?: string | false | undefined;
  /** Reads and writes JSON instead of the platform's `JSON`. */
  readonly json?: Partial<JsonText> | undefined;
}

/** One HTTP request on its way out. */
export interface Outgoing {
  /** "contract.call". */
  readonly call: string;
  readonly method: string;
  readonly url: string;
  readonly headers: Headers;
  readonly body?: RequestInit["body"] | undefined;
  /** How a body that is a stream is sent. */
  readonly duplex?: "half" | undefined;
  /** Ends when the app gives up or the time is over. */
  readonly signal: AbortSignal;
  /** Whether a credential stands in a header that no platform knows as one. */
  readonly hasKey?: boolean | undefined;
}

/** Something around every exchange: it may change the request, ask again, answer by itself, or only look. */
export type Layer = (request: Outgoing, next: (request: Outgoing) => Promise<Response>) => Promise<Response>;

export interface JsonText {
  readonly parse: (text: string) => unknown;
  readonly stringify: (value: unknown) => string;
}

/** What one call may override. */
export interface CallOptions {
  /** Ends the call with status "aborted". */
  readonly signal?: AbortSignal | undefined;
  /** Instead of the connection's limit; false for none. */
  readonly timeoutMs?: number | false | undefined;
  /** Milliseconds that a stream may be silent before it fails with status "timed-out"; no limit when absent. */
  readonly idleMs?: number | undefined;
  /** Added to the connection's headers, and stronger. */
  readonly headers?: HeaderValues | undefined;
  /** Told of the status and headers of the server's answer, before its body is read. */
  readonly onAnswer?: ((answer: { readonly status: number; readonly headers: Headers }) => void) | undefined;
  /** Told of the name and the id of an event before its data is given, where a call answers with events. */
  readonly onEvent?: ((event: { readonly event: string; readonly id?: string }) => void) | undefined;
  /**
   * Told of a result of a subscription that carries errors, which then does not end the subscription. When absent, such a
   * result is the failure that ends it.
   */
  readonly onErrors?: ((failure: Error & { readonly call: string }) => void) | undefined;
  /**
   * Whether a stream of events that ends is asked for again from its last id on, as the standard says (HTML, section
   * 9.2). Only requests with GET are, and only after an event with an id; a server ends the stream with status 204.
   */
  readonly reconnects?: boolean | undefined;
}

/** The argument of a call that takes none; kept so that the options always stand third. */
export type NoArguments = Readonly<Record<string, never>>;

/** The headers and query pairs of a request while credentials are added. */
export interface Credentials {
  /** "contract.call", for failures. */
  readonly call: string;
  readonly headers: Headers;
  readonly query: string[];
  /** Set where a credential stands in a header that no platform knows as one. */
  hasKey?: boolean;
}

/** Puts a credential where its scheme wants it. */
export type AuthScheme = (credential: string, into: Credentials) => void;

/** A contract's address, transport and credentials; every call takes one. */
export interface Connection {
  readonly contract: string;
  readonly label?: string | undefined;
  readonly baseUrl: Supplier<string>;
  readonly headers: Supplier<HeaderValues> | undefined;
  readonly fetch: typeof globalThis.fetch;
  readonly init?: FetchInit | undefined;
  /** Where the contract says that the API is; "" where it does not. */
  readonly defaultUrl?: string;
  readonly timeoutMs: number | false | undefined;
  readonly around: readonly Layer[];
  readonly onFailure: ConnectionOptions["onFailure"];
  readonly json: JsonText;
  readonly streamEnd?: string | false | undefined;
  readonly schemes: Readonly<Record<string, AuthScheme>>;
  readonly auth: Readonly<Record<string, Supplier<string> | undefined>>;
  /** Other addresses for calls that have a server of their own. */
  readonly servers?: Readonly<Record<string, Supplier<string> | undefined>>;
}

/** A supplier that can be told that its credential was rejected; whether there is another one now. */
export interface RenewableSupplier {
  (): Promise<string>;
  readonly renew: (rejected: string) => Promise<boolean>;
}

/** Completes a connection from what the app gave. */
export function connection(
  contract: string,
  defaultUrl: string,
  options: ConnectionOptions,
  auth: Connection["auth"] = {},
  schemes: Connection["schemes"] = {},
): Connection {
  return {
    contract,
    label: options.label,
    baseUrl: options.baseUrl ?? defaultUrl,
    headers: options.headers,
    // Called as a plain function: a detached platform `fetch` must not see this object as its `this`.
    fetch: options.fetch ?? ((...request) => globalThis.fetch(...request)),
    init: options.init,
    defaultUrl,
    timeoutMs: options.timeoutMs,
    around: options.around ?? [],
    onFailure: options.onFailure,
    streamEnd: options.streamEnd,
    json: { parse: JSON.parse, stringify: JSON.stringify, ...options.json },
    schemes,
    auth,
  };
}

/** The value a supplier stands for. */
export async function supplied<T extends string | HeaderValues>(supplier: Supplier<T>): Promise<T> {
  return typeof supplier === "function" ? supplier() : supplier;
}
