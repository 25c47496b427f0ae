import type { SeenExchange } from "./exchange.js";

export interface ProxyOptions {
  /** Where requests are sent on to. */
  readonly target: URL;
  /** Told of each exchange once the answer has gone through. */
  readonly onExchange: (exchange: SeenExchange, elapsedMs: number) => void;
}

/** Headers that belong to one connection (RFC 9110, section 7.6.1), and those that decoding has made untrue. */
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
const mostBytes = 16 * 1024 * 1024;

/** A handler that stands between an app and its backend: everything is passed on as it came, and looked at. */
export function observingProxy({ target, onExchange }: ProxyOptions): (request: Request) => Promise<Response> {
  return async (request) => {
    const startedAt = performance.now();
    const own = new URL(request.url);
    const base = target.pathname.replace(/\/+$/, "");
    const url = new URL(`${target.origin}${base}${own.pathname}${own.search}`);
    const headers = without(request.headers, [...notPassedOn, "host", "content-length", "accept-encoding"]);
    const body = request.body ? await request.arrayBuffer() : undefined;
    let answer: Response;
    try {
      answer = await fetch(url, {
        method: request.method,
        headers,
        redirect: "manual",
        ...(body && body.byteLength > 0 ? { body } : {}),
      });
    } catch {
      const detail = `Nothing answers at ${target.origin}.`;
      return Response.json({ title: "The backend cannot be reached", status: 502, detail }, { status: 502 });
    }
    const passed = without(answer.headers, [...notPassedOn, "content-encoding", "content-length"]);
    const location = passed.get("location");
    if (location?.startsWith(target.origin) === true)
      passed.set("location", `${own.origin}${location.slice(target.origin.length).replace(base, "")}`);
    const seen = (answerBody: string | undefined): void => {
      onExchange(
        {
          method: request.method,
          url,
          requestHeader: (name) => request.headers.get(name) ?? undefined,
          requestBody:
            body === undefined ? "" : body.byteLength > mostBytes ? undefined : new TextDecoder().decode(body),
          status: answer.status,
          answerHeader: (name) => answer.headers.get(name) ?? undefined,
          answerBody,
        },
        performance.now() - startedAt,
      );
    };
    if (!answer.body) {
      seen("");
      return new Response(null, { status: answer.status, headers: passed });
    }
    return new Response(watched(answer.body, seen, isText(answer.headers)), {
      status: answer.status,
      headers: passed,
    });
  };
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

/** Passes bytes on as they come, and tells their text when the last one, or the client, has gone. */
function watched(
  body: ReadableStream<Uint8Array>,
  seen: (text: string | undefined) => void,
  keeps: boolean,
): ReadableStream<Uint8Array> {
  const reader = body.getReader();
  const parts: Uint8Array[] = [];
  let size = 0;
  const tell = (): void => {
    seen(keeps && size <= mostBytes ? new TextDecoder().decode(joined(parts, size)) : undefined);
  };
  return new ReadableStream<Uint8Array>({
    pull: async (controller) => {
      try {
        const { done, value } = await reader.read();
        if (done) {
          tell();
          controller.close();
          return;
        }
        size += value.length;
        if (keeps && size <= mostBytes) parts.push(value);
        controller.enqueue(value);
      } catch (error) {
        // An answer that breaks off does so for the app too.
        controller.error(error);
      }
    },
    cancel: async (reason) => {
      tell();
      await reader.cancel(reason);
    },
  });
}

function joined(parts: readonly Uint8Array[], size: number): Uint8Array {
  const whole = new Uint8Array(size);
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}
