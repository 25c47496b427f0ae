/** A value, or a function that gives it when it is needed, also later. */
export type Supplier<T> = T | (() => T | Promise<T>);

export type HeaderValues = Readonly<Record<string, string>>;

/** What every connection takes, whatever the contract. */
export interface ConnectionOptions {
  /** Where the API is, without a trailing slash; asked anew for each call when it is a function. */
  readonly baseUrl?: Supplier<string> | undefined;
  /** Sent with every call. */
  readonly headers?: Supplier<HeaderValues> | undefined;
  /** The `fetch` to use; the platform's own when absent. */
  readonly fetch?: typeof globalThis.fetch | undefined;
  /** Milliseconds until a call fails with status "timed-out"; no limit when absent. */
  readonly timeoutMs?: number | undefined;
}

/** What one call may override. */
export interface CallOptions {
  /** Ends the call with status "aborted". */
  readonly signal?: AbortSignal | undefined;
  /** Instead of the connection's limit. */
  readonly timeoutMs?: number | undefined;
  /** Added to the connection's headers, and stronger. */
  readonly headers?: HeaderValues | undefined;
  /** Told of the status and headers of the server's answer, before its body is read. */
  readonly onAnswer?: ((answer: { readonly status: number; readonly headers: Headers }) => void) | undefined;
}

/** The argument of a call that takes none; kept so that the options always stand third. */
export type NoArguments = Readonly<Record<string, never>>;

/** The headers and query pairs of a request while credentials are added. */
export interface Credentials {
  readonly headers: Headers;
  readonly query: string[];
}

/** Puts a credential where its scheme wants it. */
export type AuthScheme = (credential: string, into: Credentials) => void;

/** A contract's address, transport and credentials; every call takes one. */
export interface Connection {
  readonly contract: string;
  readonly baseUrl: Supplier<string>;
  readonly headers: Supplier<HeaderValues> | undefined;
  readonly fetch: typeof globalThis.fetch;
  readonly timeoutMs: number | undefined;
  readonly schemes: Readonly<Record<string, AuthScheme>>;
  readonly auth: Readonly<Record<string, Supplier<string> | undefined>>;
  /** Other addresses for calls that have a server of their own. */
  readonly servers?: Readonly<Record<string, Supplier<string> | undefined>>;
}

/** An address with its variables filled in. */
export function serverUrl(template: string, variables: Readonly<Record<string, string | undefined>>): string {
  return template.replace(/\{([^{}]+)\}/g, (whole, name: string) => variables[name] ?? whole);
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
    baseUrl: options.baseUrl ?? defaultUrl,
    headers: options.headers,
    // Called as a plain function: a detached platform `fetch` must not see this object as its `this`.
    fetch: options.fetch ?? ((...request) => globalThis.fetch(...request)),
    timeoutMs: options.timeoutMs,
    schemes,
    auth,
  };
}

/** The value a supplier stands for. */
export async function supplied<T extends string | HeaderValues>(supplier: Supplier<T>): Promise<T> {
  return typeof supplier === "function" ? supplier() : supplier;
}
