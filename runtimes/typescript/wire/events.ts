import type { Exchanged } from "./exchange.js";

/** One event of a `text/event-stream`. */
export interface ServerEvent {
  readonly event: string;
  readonly data: string;
  readonly id?: string;
}

interface Chunk {
  readonly done: boolean;
  readonly value?: Uint8Array;
}

/**
 * The body as text, in pieces as they arrive. The request ends when the consumer stops.
 *
 * @throws the failure of the call if the response is cut off
 */
export async function* textChunks({
  response,
  explain,
  done,
  waiting,
}: Exchanged): AsyncGenerator<string, void, undefined> {
  const reader = response.body?.getReader();
  try {
    const decoder = new TextDecoder();
    while (reader !== undefined) {
      let chunk: Chunk;
      try {
        waiting(true);
        chunk = (await reader.read()) as Chunk;
      } catch (error) {
        throw explain(error);
      } finally {
        waiting(false);
      }
      if (chunk.done) break;
      yield decoder.decode(chunk.value, { stream: true });
    }
    const rest = decoder.decode();
    if (rest !== "") yield rest;
  } finally {
    done();
    await reader?.cancel().catch(() => {
      // The stream is already closed or broken.
    });
  }
}

/** The pieces between separators. The text after the last separator is a piece too. */
export async function* pieces(
  chunks: AsyncIterable<string>,
  separator: string | RegExp,
): AsyncGenerator<string, void, undefined> {
  let pending = "";
  for await (const chunk of chunks) {
    pending += chunk;
    // A carriage return at the end may be the first half of a line ending.
    if (pending.endsWith("\r")) continue;
    const found = pending.replace(/\r\n/g, "\n").split(separator);
    pending = found.pop() ?? "";
    yield* found;
  }
  if (pending.trim() !== "") yield pending.replace(/\r\n/g, "\n");
}

/** The state of a stream of events. */
export interface StreamState {
  /** The id of the last event that had one; "" before that. */
  lastId: string;
  /** Milliseconds that the server requires between reconnections. */
  retryMs?: number;
}

/**
 * The events of a `text/event-stream`, parsed by the standard (HTML, section 9.2.6). An event without a blank line
 * after it is dropped when the stream ends.
 *
 * @param state is updated with each event
 * @param withEmpty also returns events that have a name and no data, which the standard drops
 */
export async function* events(
  exchanged: Exchanged,
  state: StreamState = { lastId: "" },
  withEmpty = false,
): AsyncGenerator<ServerEvent, void, undefined> {
  let event = "";
  let id: string | undefined;
  let data: string[] = [];
  for await (const line of lines(textChunks(exchanged))) {
    if (line === "") {
      if (data.length > 0 || (withEmpty && event !== ""))
        yield { event: event === "" ? "message" : event, data: data.join("\n"), ...(id === undefined ? {} : { id }) };
      event = "";
      id = undefined;
      data = [];
      continue;
    }
    const colon = line.indexOf(":");
    const field = colon < 0 ? line : line.slice(0, colon);
    const value = colon < 0 ? "" : line.slice(line.startsWith(" ", colon + 1) ? colon + 2 : colon + 1);
    if (field === "data") data.push(value);
    else if (field === "event") event = value;
    else if (field === "id" && !value.includes("\0")) state.lastId = id = value;
    else if (field === "retry" && /^[0-9]+$/.test(value)) state.retryMs = Number(value);
  }
}

/** Complete lines. A line ends with a line feed, a carriage return, or both. */
async function* lines(chunks: AsyncIterable<string>): AsyncGenerator<string, void, undefined> {
  let pending = "";
  let isAfterReturn = false;
  for await (const chunk of chunks) {
    // The second half of a line ending whose first half already ended the line.
    const fresh = isAfterReturn && chunk.startsWith("\n") ? chunk.slice(1) : chunk;
    if (chunk !== "") isAfterReturn = chunk.endsWith("\r");
    const found = fresh.split(/\r\n|\n|\r/);
    const rest = found.pop() ?? "";
    for (const line of found) {
      yield pending + line;
      pending = "";
    }
    pending += rest;
  }
}
