import type { IncomingMessage, ServerResponse } from "node:http";
import { credentialOf } from "../../core/text/secrets.js";
import { isOwnName } from "../ownName.js";
import { askBackend, type BackendAnswer } from "./askBackend.js";
import type { SeenExchange } from "./exchange.js";

export interface ProxyOptions {
  /** The target of requests. */
  readonly target: URL;
  /** Called with each request after its response has been passed on. */
  readonly onExchange: (exchange: SeenExchange, elapsedMs: number) => void;
}

/** Headers of a single connection (RFC 9110, section 7.6.1), and those that each side negotiates itself. */
const notPassedOn = [
  "connection",
  "keep-alive",
  "proxy-authenticate",
  "proxy-authorization",
  "te",
  "trailer",
  "transfer-encoding",
  "upgrade",
];
const agreedAnew = ["host", "accept-encoding", "expect"];
const mostBytes = 16 * 1024 * 1024;

/** A request and its response in Node's own server. */
interface ServerSide {
  readonly incoming: IncomingMessage;
  readonly outgoing: ServerResponse;
}

/** Returns a handler between an app and its backend: everything is passed on unchanged, and checked. */
export function observingProxy({
  target,
  onExchange,
}: ProxyOptions): (request: Request, server: ServerSide) => Promise<Response> {
  return async (request, { incoming, outgoing }) => {
    const startedAt = performance.now();
    if (!isOwnName(incoming.headers.host)) return elsewhere();
    const own = new URL(request.url);
    const base = target.pathname.replace(/\/+$/, "");
    const url = new URL(`${target.origin}${base}${own.pathname}${own.search}`);
    const headers = without(request.headers, [...notPassedOn, ...agreedAnew]);
    if (!headers.has("authorization"))
      for (const [name, value] of Object.entries(credentialOf(target))) headers.set(name, value);
    if (request.headers.has("transfer-encoding")) headers.set("transfer-encoding", "chunked");
    const sent = new Kept();
    incoming.on("data", (part: Buffer) => {
      sent.add(part);
    });
    let answer: BackendAnswer;
    try {
      answer = await askBackend(url, incoming, headers);
    } catch (error) {
      const detail = unreachable(target.origin, error);
      return Response.json({ title: "The backend cannot be reached", status: 502, detail }, { status: 502 });
    }
    const passed = without(answer.headers, [...notPassedOn, "content-encoding", "content-length"]);
    const location = passed.get("location");
    if (location?.startsWith(target.origin) === true)
      passed.set("location", `${own.origin}${location.slice(target.origin.length).replace(base, "")}`);
    let isTold = false;
    const seen: Seen = (answerBody, isAborted = outgoing.destroyed) => {
      // If the app disconnects, its request and its response end, in any order.
      if (isTold) return;
      isTold = true;
      onExchange(
        {
          method: request.method,
          url,
          requestHeader: (name) => request.headers.get(name) ?? undefined,
          requestBody: sent.text(),
          status: answer.status,
          answerHeader: (name) => answer.headers.get(name) ?? undefined,
          answerBody,
          ...(isAborted ? { isAborted } : {}),
        },
        performance.now() - startedAt,
      );
    };
    if (!answer.body) {
      seen("", false);
      return new Response(null, { status: answer.status, headers: passed });
    }
    const breakOff = (): void => {
      outgoing.destroy();
    };
    return new Response(watched(answer.body, seen, { keeps: isText(answer.headers), breakOff }), {
      status: answer.status,
      headers: passed,
    });
  };
}

/** A request with the name of another site is not passed on (RFC 9110, section 15.5.20). */
function elsewhere(): Response {
  const detail = "The request names another host. Use 127.0.0.1, localhost, or the IP address.";
  return Response.json({ title: "Wrong host", status: 421, detail }, { status: 421 });
}

function isText(headers: Headers): boolean {
  const type = headers.get("content-type") ?? "";
  return type === "" || /json|text|xml|graphql|urlencoded/.test(type);
}

function without(headers: Headers, names: readonly string[]): Headers {
  const copy = new Headers(headers);
  for (const name of names) copy.delete(name);
  return copy;
}

/** Why there is no response, for the developer of the app. */
function unreachable(origin: string, error: unknown): string {
  const code = error instanceof Error && "code" in error ? String(error.code) : "no response";
  return /CERT|SIGNATURE|SELF_SIGNED/.test(code)
    ? `The certificate of ${origin} is not trusted (${code}); NODE_EXTRA_CA_CERTS can name a file with one that is.`
    : code.startsWith("HPE_")
      ? `The response at ${origin} is not valid HTTP (${code}).`
      : `No server responds at ${origin} (${code}).`;
}

/** The bytes so far, up to a limit. */
class Kept {
  private readonly parts: Uint8Array[] = [];
  private size = 0;

  add(part: Uint8Array): void {
    this.size += part.length;
    if (this.size <= mostBytes) this.parts.push(part);
  }

  /** Undefined above the limit. */
  text(): string | undefined {
    return this.size > mostBytes ? undefined : Buffer.concat(this.parts).toString();
  }
}

/** Receives the text of a response, and whether the app cancelled it; without that, the app is checked. */
type Seen = (text: string | undefined, isAborted?: boolean) => void;

/** Passes bytes on as they arrive, and reports their text after the last one or after the client has disconnected. */
function watched(
  body: ReadableStream<Uint8Array>,
  seen: Seen,
  { keeps, breakOff }: { readonly keeps: boolean; readonly breakOff: () => void },
): ReadableStream<Uint8Array> {
  const reader = body.getReader();
  const kept = new Kept();
  const tell = (isAborted: boolean): void => {
    seen(keeps ? kept.text() : undefined, isAborted);
  };
  return new ReadableStream<Uint8Array>({
    pull: async (controller) => {
      try {
        const { done, value } = await reader.read();
        if (done) {
          tell(false);
          controller.close();
          return;
        }
        if (keeps) kept.add(value);
        controller.enqueue(value);
      } catch {
        // An error of the connection or of decoding reaches the app too. The received part is incomplete.
        seen(undefined);
        breakOff();
        controller.close();
      }
    },
    cancel: async (reason) => {
      tell(true);
      await reader.cancel(reason);
    },
  });
}
