/** A value, or a function that returns it. The function is called each time the value is needed. */
export type Supplier<T> = T | (() => T | Promise<T>);

export type HeaderValues = Readonly<Record<string, string>>;

/** The options of `fetch`, except those that a call sets itself. */
export type FetchInit = Omit<RequestInit, "method" | "headers" | "body" | "signal" | "window">;

/** The options of every connection, whatever the contract. */
export interface ConnectionOptions {
  /** The base URL of the API, without a trailing slash. A function is called for each call. */
  readonly baseUrl?: Supplier<string> | undefined;
  /**
   * Separates the responses of this connection from those of others in an app's cache, for example for two tenants. It
   * is never sent.
   */
  readonly label?: string | undefined;
  /** Headers that are sent with every call. */
  readonly headers?: Supplier<HeaderValues> | undefined;
  /**
   * Options for every request, such as `{ credentials: "include" }` for sessions in cookies of another origin. With
   * `redirect: "follow"`, the platform follows redirects and decides which credentials are sent along.
   */
  readonly init?: FetchInit | undefined;
  /** The `fetch` function to use. Default: the platform's own. */
  readonly fetch?: typeof globalThis.fetch | undefined;
  /**
   * Milliseconds until a call fails with status "timed-out", all retries included. For a stream: until it begins. No
   * limit if absent, false, 0 or Infinity.
   */
  readonly timeoutMs?: number | false | undefined;
  /** Layers around every request, outermost first: `retrying(…)`, `eachRequest(…)`, `eachAnswer(…)`, or your own. */
  readonly around?: readonly Layer[] | undefined;
  /** Called with every failure before the call throws it. */
  readonly onFailure?: ((failure: Error & { readonly call: string }) => void) | undefined;
  /** The text that ends a stream of JSON events and is not an event itself. Default: "[DONE]"; false for none. */
  readonly streamEnd?: string | false | undefined;
  /** Reads and writes JSON in place of the platform's `JSON`. */
  readonly json?: Partial<JsonText> | undefined;
}

/** An HTTP request that is about to be sent. */
export interface Outgoing {
  /** "contract.call". */
  readonly call: string;
  readonly method: string;
  readonly url: string;
  readonly headers: Headers;
  readonly body?: RequestInit["body"] | undefined;
  /** Required by `fetch` for a body that is a stream. */
  readonly duplex?: "half" | undefined;
  /** Aborted when the app cancels the call or the time limit is reached. */
  readonly signal: AbortSignal;
  /** Whether a header that platforms do not know as a credential contains one. */
  readonly hasKey?: boolean | undefined;
}

/** A layer around every request. It can change the request, send it again, respond itself, or only watch. */
export type Layer = (request: Outgoing, next: (request: Outgoing) => Promise<Response>) => Promise<Response>;

export interface JsonText {
  readonly parse: (text: string) => unknown;
  readonly stringify: (value: unknown) => string;
}

/** The options of one call. They override those of the connection. */
export interface CallOptions {
  /** Cancels the call, which then fails with status "aborted". */
  readonly signal?: AbortSignal | undefined;
  /** Replaces the connection's limit; false for none. */
  readonly timeoutMs?: number | false | undefined;
  /** Milliseconds that a stream may be silent before it fails with status "timed-out". No limit if absent. */
  readonly idleMs?: number | undefined;
  /** Headers of this call. They override the connection's headers of the same name. */
  readonly headers?: HeaderValues | undefined;
  /** Called with the status and headers of the response before its body is read. */
  readonly onAnswer?: ((answer: { readonly status: number; readonly headers: Headers }) => void) | undefined;
  /** Called with the name and id of an event before its data is returned, if the call responds with events. */
  readonly onEvent?: ((event: { readonly event: string; readonly id?: string }) => void) | undefined;
  /**
   * Called with a subscription result that has errors. The subscription then continues. If absent, such a result ends
   * the subscription with a failure.
   */
  readonly onErrors?: ((failure: Error & { readonly call: string }) => void) | undefined;
  /**
   * Whether a stream of events is requested again after it ends, from its last id on (HTML, section 9.2). This applies
   * only to GET requests, and only after an event with an id. A server ends the stream with status 204.
   */
  readonly reconnects?: boolean | undefined;
}

/** The argument of a call without arguments. It keeps the options in third place. */
export type NoArguments = Readonly<Record<string, never>>;

/** The headers and query of a request while credentials are added. */
export interface Credentials {
  /** "contract.call", for failures. */
  readonly call: string;
  readonly headers: Headers;
  readonly query: string[];
  /** Set when a header that platforms do not know as a credential contains one. */
  hasKey?: boolean;
}

/** Adds a credential in the way that its scheme requires. */
export type AuthScheme = (credential: string, into: Credentials) => void;

/** The address, transport and credentials of a contract. Every call takes one. */
export interface Connection {
  readonly contract: string;
  readonly label?: string | undefined;
  readonly baseUrl: Supplier<string>;
  readonly headers: Supplier<HeaderValues> | undefined;
  readonly fetch: typeof globalThis.fetch;
  readonly init?: FetchInit | undefined;
  /** The base URL in the contract; "" if it has none. */
  readonly defaultUrl?: string;
  readonly timeoutMs: number | false | undefined;
  readonly around: readonly Layer[];
  readonly onFailure: ConnectionOptions["onFailure"];
  readonly json: JsonText;
  readonly streamEnd?: string | false | undefined;
  readonly schemes: Readonly<Record<string, AuthScheme>>;
  readonly auth: Readonly<Record<string, Supplier<string> | undefined>>;
  /** Other base URLs, for calls that have a server of their own. */
  readonly servers?: Readonly<Record<string, Supplier<string> | undefined>>;
}

/** A supplier that can be told that its credential was rejected. Returns whether there is another one now. */
export interface RenewableSupplier {
  (): Promise<string>;
  readonly renew: (rejected: string) => Promise<boolean>;
}

/** Creates a connection from the options of the app. */
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
    // Called without an object: the platform's `fetch` fails if this object is its `this`.
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

/** The value of a supplier. */
export async function supplied<T extends string | HeaderValues>(supplier: Supplier<T>): Promise<T> {
  return typeof supplier === "function" ? supplier() : supplier;
}
