import { request as requestHttp, type IncomingMessage } from "node:http";
import { request as requestHttps } from "node:https";
import { Readable, pipeline, type Transform } from "node:stream";
import { createBrotliDecompress, createGunzip, createInflate } from "node:zlib";

/** The response of a backend. */
export interface BackendAnswer {
  readonly status: number;
  readonly headers: Headers;
  /** The body as it arrives, decoded; null if there is none. */
  readonly body: ReadableStream<Uint8Array> | null;
}

/** Statuses of responses without a body (Fetch, section 2.2.3). */
const withoutBody = new Set([101, 204, 205, 304]);

/**
 * Sends a request on unchanged, with its body as it arrives.
 *
 * @param headers the headers to send; of the body's own, its length or its chunked encoding
 * @throws the network's error if there is no response
 */
export function askBackend(url: URL, incoming: IncomingMessage, headers: Headers): Promise<BackendAnswer> {
  return new Promise((resolve, reject) => {
    const send = url.protocol === "https:" ? requestHttps : requestHttp;
    // A connection of its own: the backend may close a kept one just when it is used again.
    const outgoing = send(url, { method: incoming.method, headers: Object.fromEntries(headers), agent: false });
    outgoing.on("error", reject);
    outgoing.on("response", (answer) => {
      resolve(answerOf(answer, incoming.method === "HEAD"));
    });
    // If the app cancels, the request ends here too. A response may come before everything is sent.
    pipeline(incoming, outgoing, (error) => {
      if (error) reject(error);
    });
  });
}

function answerOf(answer: IncomingMessage, isHead: boolean): BackendAnswer {
  const status = answer.statusCode ?? 502;
  const headers = new Headers();
  for (let at = 0; at < answer.rawHeaders.length; at += 2)
    headers.append(answer.rawHeaders[at] ?? "", answer.rawHeaders[at + 1] ?? "");
  // Some servers send this header for responses that are not compressed, which no decoder accepts.
  if (isHead || withoutBody.has(status) || headers.get("content-length") === "0") {
    answer.resume();
    return { status, headers, body: null };
  }
  const decoder = decoderOf(headers.get("content-encoding"));
  // An error of the connection or of decoding reaches the app too.
  const body = decoder ? pipeline(answer, decoder, () => undefined) : answer;
  return { status, headers, body: Readable.toWeb(body) as ReadableStream<Uint8Array> };
}

function decoderOf(encoding: string | null): Transform | undefined {
  switch (encoding?.toLowerCase()) {
    case "gzip":
    case "x-gzip":
      return createGunzip();
    case "deflate":
      return createInflate();
    case "br":
      return createBrotliDecompress();
    default:
      return undefined;
  }
}
