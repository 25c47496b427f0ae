import { credentialOf } from "../../core/text/secrets.js";
import { problem, type Problem } from "../../core/problem/problem.js";

export interface FetchOptions {
  /** Sent to the first address's origin only. */
  readonly headers: Readonly<Record<string, string>>;
  /** Hosts that may be asked beside the first address's own. */
  readonly hosts: readonly string[];
  readonly timeoutMs: number;
  /** JSON to send with POST; GET when absent. */
  readonly body?: string;
  /** What is known of the text that was fetched last: a server that has no newer one says so. */
  readonly known?: Validators | undefined;
}

/** What a server tells a version of a text by (RFC 9110, section 8.8). */
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
 * Gets a text over HTTP, or the answer to a JSON body. A redirect is followed only to a host the configuration allows,
 * and without the headers when it leaves the origin. Whatever goes wrong is a problem that says what to do.
 *
 * @param address may have user and password before its host, which are sent as a credential
 * @param shown the address as messages may show it
 */
export async function fetchText(address: string, shown: string, options: FetchOptions): Promise<Fetched> {
  const first = new URL(address);
  const headers = { ...credentialOf(first), ...options.headers };
  let url = withoutUserInfo(first);
  const failed = (message: string, hint: string, status?: number): Fetched => ({
    problem: problem("contract.fetch", `\`${shown}\` ${message}.`, { hint }),
    ...(status === undefined ? {} : { status }),
  });
  const { body } = options;
  for (let redirects = 0; redirects <= mostRedirects; redirects++) {
    let response: Response;
    try {
      response = await asked(url, {
        redirect: "manual",
        signal: AbortSignal.timeout(options.timeoutMs),
        ...(body === undefined ? {} : { method: "POST", body }),
        headers: {
          ...(body === undefined
            ? { accept: "application/json, application/yaml, */*;q=0.5" }
            : { accept: "application/graphql-response+json, application/json", "content-type": "application/json" }),
          ...(body === undefined ? conditions(options.known) : {}),
          ...(url.origin === first.origin ? headers : {}),
        },
      });
    } catch (error) {
      if (error instanceof Error && error.name === "TimeoutError")
        return failed(
          `did not answer within ${String(options.timeoutMs / 1000)} s`,
          "Try again, or check the address.",
        );
      return unreachable(error, first)
        ? failed(`cannot be reached: nothing listens at ${first.host}`, "Start the server, or check the port.")
        : failed("cannot be reached", "Check the address, and that the server is running.");
    }
    if (response.status === 304 && options.known) return { isSame: true };
    const location = response.headers.get("location");
    if (response.status >= 300 && response.status < 400 && location !== null) {
      const next = URL.canParse(location, url.href) ? new URL(location, url.href) : undefined;
      const isAllowed =
        next !== undefined &&
        /^https?:$/.test(next.protocol) &&
        (next.host === first.host || options.hosts.includes(next.host));
      if (!isAllowed)
        return failed(
          `redirects to \`${next?.host ?? location}\`, which the configuration does not allow`,
          "Use that address, or add its host to `hosts` of the contract.",
        );
      await response.body?.cancel();
      url = withoutUserInfo(next);
      continue;
    }
    if (response.status === 401 || response.status === 403)
      return failed(
        `refuses access (${String(response.status)})`,
        "Send a credential with `headers` of the contract, from the environment.",
        response.status,
      );
    const text = await readLimited(response);
    // A GraphQL server says with 400 what it does not understand of a query.
    if (!response.ok && !(body !== undefined && response.status === 400 && /^\s*\{/.test(text ?? "")))
      return failed(`answers ${String(response.status)}`, hintFor(response.status), response.status);
    if (text === undefined)
      return failed("is larger than 128 MB or broke off", "Save it to a file, and name the file.");
    if (text.trim() === "") return failed("is empty", "Check the address.");
    if (/^\s*<(?:!doctype|html)/i.test(text))
      return failed(
        "is a web page, not a description",
        "Use the address of the description itself, which often ends in .json or .yaml.",
        response.status,
      );
    return { text, validators: validatorsOf(response.headers) };
  }
  return failed(`redirects more than ${String(mostRedirects)} times`, "Use the final address.");
}

/**
 * A server may close a connection that was kept just when it is used again. What is asked here changes nothing, so it is
 * asked once more (RFC 9110, section 9.2.2).
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
    // A body that breaks off is no text; the caller says so.
    return undefined;
  }
  return new TextDecoder().decode(Buffer.concat(parts));
}

/** What to do about an answer that holds no contract. */
function hintFor(status: number): string {
  if (status === 404 || status === 410)
    return "There is nothing at this address. Open it in a browser: it has to show the contract itself, often at /openapi.json or /graphql, and not a page about it.";
  if (status === 429) return "The server takes no more requests for now. Wait, and try again.";
  return status >= 500 ? "The server has a problem of its own. Try again later." : "Check the address.";
}
