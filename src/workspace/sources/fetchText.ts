import { credentialOf } from "../../core/text/secrets.js";
import { problem, type Problem } from "../../core/problem/problem.js";

export interface FetchOptions {
  /** Headers that are sent only to the first address's origin. */
  readonly headers: Readonly<Record<string, string>>;
  /** Hosts that may be requested besides the first address's own. */
  readonly hosts: readonly string[];
  readonly timeoutMs: number;
  /** JSON to send with POST. Default: GET. */
  readonly body?: string;
  /** The version of the text that was fetched last. A server without a newer one reports that. */
  readonly known?: Validators | undefined;
}

/** The version of a text according to its server (RFC 9110, section 8.8). */
export interface Validators {
  readonly etag?: string;
  readonly lastModified?: string;
}

export type Fetched =
  | { readonly text: string; readonly validators?: Validators }
  | { readonly isSame: true }
  | { readonly problem: Problem; readonly status?: number };

const mostRedirects = 5;
const mostBytes = 128 * 1024 * 1024;

/**
 * Fetches a text over HTTP, or the response to a JSON body. A redirect is followed only to a host that the
 * configuration allows, and without the headers if it leaves the origin. Every failure is a problem with a fix.
 *
 * @param address may have a user and password before its host, which are sent as a credential
 * @param shown the address for messages
 */
export async function fetchText(address: string, shown: string, options: FetchOptions): Promise<Fetched> {
  const first = new URL(address);
  const failed: Failed = (message, hint, status) => ({
    problem: problem("contract.fetch", `\`${shown}\` ${message}.`, { hint }),
    ...(status === undefined ? {} : { status }),
  });
  const headers = { ...credentialOf(first), ...options.headers };
  let url = withoutUserInfo(first);
  for (let redirects = 0; redirects <= mostRedirects; redirects++) {
    let response: Response;
    try {
      response = await asked(url, requestOf(options, url.origin === first.origin ? headers : {}));
    } catch (error) {
      return notReached(error, { first, timeoutMs: options.timeoutMs, failed });
    }
    if (response.status === 304 && options.known) return { isSame: true };
    const location = response.headers.get("location");
    if (response.status < 300 || response.status >= 400 || location === null) return read(response, options, failed);
    const next = URL.canParse(location, url.href) ? new URL(location, url.href) : undefined;
    if (!next || !isAllowed(next, first, options.hosts))
      return failed(
        `redirects to \`${next?.host ?? location}\`, which the configuration does not allow`,
        "Use that address, or add its host to `hosts` of the contract.",
      );
    await response.body?.cancel();
    url = withoutUserInfo(next);
  }
  return failed(`redirects more than ${String(mostRedirects)} times`, "Use the final address.");
}

/** Creates the problem for a failure, with a fix. */
type Failed = (message: string, hint: string, status?: number) => Fetched;

function requestOf({ body, known, timeoutMs }: FetchOptions, headers: Readonly<Record<string, string>>): RequestInit {
  const how: RequestInit = { redirect: "manual", signal: AbortSignal.timeout(timeoutMs) };
  if (body === undefined) {
    const accept = "application/json, application/yaml, */*;q=0.5";
    return { ...how, headers: { accept, ...conditions(known), ...headers } };
  }
  const types = { accept: "application/graphql-response+json, application/json", "content-type": "application/json" };
  return { ...how, method: "POST", body, headers: { ...types, ...headers } };
}

function isAllowed(next: URL, first: URL, hosts: readonly string[]): boolean {
  return /^https?:$/.test(next.protocol) && (next.host === first.host || hosts.includes(next.host));
}

function notReached(
  error: unknown,
  { first, timeoutMs, failed }: { readonly first: URL; readonly timeoutMs: number; readonly failed: Failed },
): Fetched {
  if (error instanceof Error && error.name === "TimeoutError")
    return failed(`did not respond within ${String(timeoutMs / 1000)} s`, "Try again, or check the address.");
  return unreachable(error, first)
    ? failed(`cannot be reached: no server listens at ${first.host}`, "Start the server, or check the port.")
    : failed("cannot be reached", "Check the address, and that the server is running.");
}

/** Reads the text of a response that is not a redirect. */
async function read(response: Response, { body }: FetchOptions, failed: Failed): Promise<Fetched> {
  const { status } = response;
  if (status === 401 || status === 403)
    return failed(
      `refuses access (${String(status)})`,
      "Send a credential with `headers` of the contract, from the environment.",
      status,
    );
  const text = await readLimited(response);
  // A GraphQL server responds with 400 if it does not understand a query.
  const isExplained = body !== undefined && status === 400 && /^\s*\{/.test(text ?? "");
  if (!response.ok && !isExplained) return failed(`responds with ${String(status)}`, hintFor(status), status);
  if (text === undefined)
    return failed("is larger than 128 MB, or was disconnected", "Save it to a file, and set `from` to the file.");
  if (text.trim() === "") return failed("is empty", "Check the address.");
  if (/^\s*<(?:!doctype|html)/i.test(text))
    return failed(
      "is a web page, not a contract",
      "Use the URL of the contract itself, which often ends in .json or .yaml.",
      status,
    );
  return { text, validators: validatorsOf(response.headers) };
}

/**
 * A server may close a kept connection just when it is used again. These requests change nothing, so they are sent once
 * more (RFC 9110, section 9.2.2).
 */
async function asked(url: URL, request: RequestInit): Promise<Response> {
  try {
    return await fetch(url.href, request);
  } catch (error) {
    const { code } = (error instanceof Error ? (error.cause ?? {}) : {}) as { code?: string };
    if (code !== "ECONNRESET" && code !== "UND_ERR_SOCKET") throw error;
    return await fetch(url.href, request);
  }
}

function withoutUserInfo(address: URL): URL {
  const url = new URL(address);
  url.username = "";
  url.password = "";
  return url;
}

function conditions({ etag, lastModified }: Validators = {}): Record<string, string> {
  return {
    ...(etag === undefined ? {} : { "if-none-match": etag }),
    ...(lastModified === undefined ? {} : { "if-modified-since": lastModified }),
  };
}

function validatorsOf(headers: Headers): Validators {
  const etag = headers.get("etag");
  const lastModified = headers.get("last-modified");
  return { ...(etag === null ? {} : { etag }), ...(lastModified === null ? {} : { lastModified }) };
}

function unreachable(error: unknown, { host }: URL): boolean {
  const cause = error instanceof Error ? (error.cause as { code?: string } | undefined) : undefined;
  return cause?.code === "ECONNREFUSED" && host !== "";
}

async function readLimited(response: Response): Promise<string | undefined> {
  const parts: Uint8Array[] = [];
  let size = 0;
  try {
    for await (const part of response.body ?? []) {
      const bytes = part as Uint8Array;
      size += bytes.length;
      if (size > mostBytes) return undefined;
      parts.push(bytes);
    }
  } catch {
    // A body that was cut off is not valid. The caller reports it.
    return undefined;
  }
  return new TextDecoder().decode(Buffer.concat(parts));
}

/** What to do about a response without a contract. */
function hintFor(status: number): string {
  if (status === 404 || status === 410)
    return "There is nothing at this URL. Open it in a browser: it must show the contract itself, often at /openapi.json or /graphql.";
  if (status === 429) return "The server accepts no more requests for now. Try again later.";
  return status >= 500 ? "The server has an internal error. Try again later." : "Check the address.";
}
