import type { IncomingMessage, ServerResponse } from "node:http";
import { credentialOf } from "../../core/text/secrets.js";
import { isOwnName } from "../ownName.js";
import { askBackend, type BackendAnswer } from "./askBackend.js";
import type { SeenExchange } from "./exchange.js";

export interface ProxyOptions {
  /** Where requests are sent on to. */
  readonly target: URL;
  /** Told of each exchange once the answer has gone through. */
  readonly onExchange: (exchange: SeenExchange, elapsedMs: number) => void;
}

/** Headers that belong to one connection (RFC 9110, section 7.6.1), and those that are agreed on with each side anew. */
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

/** A request and its answer as Node's own server has them. */
interface ServerSide {
  readonly incoming: IncomingMessage;
  readonly outgoing: ServerResponse;
}

/** A handler that stands between an app and its backend: everything is passed on as it came, and looked at. */
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
      // An app that gives up ends its request and its answer, each of which can be noticed first.
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

/** What is asked by a name of another site is not passed on (RFC 9110, section 15.5.20). */
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

/** Why there is no answer, for the developer whose app gets this one instead. */
function unreachable(origin: string, error: unknown): string {
  const code = error instanceof Error && "code" in error ? String(error.code) : "no answer";
  return /CERT|SIGNATURE|SELF_SIGNED/.test(code)
    ? `The certificate of ${origin} is not trusted (${code}); NODE_EXTRA_CA_CERTS can name a file with one that is.`
    : code.startsWith("HPE_")
      ? `The response at ${origin} is not valid HTTP (${code}).`
      : `No server responds at ${origin} (${code}).`;
}

/** What went by, as far as it is not too much to look at. */
class Kept {
  private readonly parts: Uint8Array[] = [];
  private size = 0;

  add(part: Uint8Array): void {
    this.size += part.length;
    if (this.size <= mostBytes) this.parts.push(part);
  }

  /** Undefined when it was too much. */
  text(): string | undefined {
    return this.size > mostBytes ? undefined : Buffer.concat(this.parts).toString();
  }
}

/** Takes the text of an answer, and whether the app gave it up; where that is not said, whether the app is still there. */
type Seen = (text: string | undefined, isAborted?: boolean) => void;

/** Passes bytes on as they come, and tells their text when the last one, or the client, has gone. */
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
        // An answer that breaks off, or cannot be decoded, does so for the app too; what came of it is no whole.
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
