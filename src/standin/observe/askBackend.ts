import { request as requestHttp, type IncomingMessage } from "node:http";
import { request as requestHttps } from "node:https";
import { Readable, pipeline, type Transform } from "node:stream";
import { createBrotliDecompress, createGunzip, createInflate } from "node:zlib";

/** What a backend answered. */
export interface BackendAnswer {
  readonly status: number;
  readonly headers: Headers;
  /** As it comes, decoded; null where an answer has none. */
  readonly body: ReadableStream<Uint8Array> | null;
}

/** Answers that have no body (Fetch, section 2.2.3). */
const withoutBody = new Set([101, 204, 205, 304]);

/**
 * Sends a request on as it came, whatever its method, and its body as it comes.
 *
 * @param headers those to send; of the body's own, its length or that it comes in chunks
 * @throws the network's error when there is no answer
 */
export function askBackend(url: URL, incoming: IncomingMessage, headers: Headers): Promise<BackendAnswer> {
  return new Promise((resolve, reject) => {
    const send = url.protocol === "https:" ? requestHttps : requestHttp;
    // A connection of its own: one that is kept may be closed by the backend just when it is used again.
    const outgoing = send(url, { method: incoming.method, headers: Object.fromEntries(headers), agent: false });
    outgoing.on("error", reject);
    outgoing.on("response", (answer) => {
      resolve(answerOf(answer, incoming.method === "HEAD"));
    });
    // An app that gives up ends the request here too; an answer may come before all is sent.
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
  // Some say how nothing is compressed, which no decoder takes.
  if (isHead || withoutBody.has(status) || headers.get("content-length") === "0") {
    answer.resume();
    return { status, headers, body: null };
  }
  const decoder = decoderOf(headers.get("content-encoding"));
  // What breaks off or cannot be decoded does so for the app as well.
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
