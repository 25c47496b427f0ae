import type { Body } from "./bodies.js";
import type { CallOptions, Connection } from "./connection.js";
import { events, pieces, textChunks, type StreamState } from "./events.js";
import type { Exchanged } from "./exchange.js";
import { failure, isFailure } from "./failure.js";
import { answered, begin, readBody, told, type RestRequest } from "./send.js";
import { pause } from "./pause.js";

/**
 * Performs a call that responds item by item. It ends with the stream, with the consumer's `break`, or with the signal.
 * A failure is thrown where the items are awaited.
 *
 * @throws the failure of the call, also while items arrive
 */
export async function* receive<Item>(
  connection: Connection,
  request: RestRequest<Item>,
  options?: CallOptions,
): AsyncGenerator<Item, void, undefined> {
  const state: StreamState = { lastId: "" };
  try {
    for (let isFirst = true; ; isFirst = false) {
      const more = isFirst ? options : { ...options, headers: { ...options?.headers, "Last-Event-ID": state.lastId } };
      try {
        yield* receiveOnce(connection, request, more, state);
      } catch (error) {
        const isBroken = isFailure(error) && Reflect.get(error, "status") === "unreachable";
        if (!isBroken || !canReconnect(request, options, state)) throw error;
      }
      if (!canReconnect(request, options, state)) return;
      await pause(state.retryMs ?? usualRetryMs, request.call, options?.signal);
    }
  } catch (error) {
    throw told(connection, error);
  }
}

/** The usual pause of clients if the server gives none. */
const usualRetryMs = 3_000;

/** Whether a stream can be continued. A stream that the server has ended has no last id. */
function canReconnect({ method }: { method: string }, options: CallOptions | undefined, state: StreamState): boolean {
  return options?.reconnects === true && method === "GET" && state.lastId !== "";
}

async function* receiveOnce<Item>(
  connection: Connection,
  request: RestRequest<Item>,
  options: CallOptions | undefined,
  state: StreamState,
): AsyncGenerator<Item, void, undefined> {
  let exchanged: Exchanged | undefined;
  try {
    exchanged = await begin(connection, request, options);
    const received = exchanged;
    const success = await answered(connection, received, request);
    const isStream = success.readAs !== "json" && success.readAs !== "text" && success.readAs !== "bytes";
    if (isStream) received.waiting(false);
    // The server has ended the stream (HTML, section 9.2.2).
    if (received.response.status === 204) state.lastId = "";
    const decode = request.conversions?.[success.key]?.decode ?? ((value: unknown) => value);
    const item = (text: string): Item => itemOf(connection, request, received, decode, text) as Item;
    const { streamEnd = "[DONE]" } = connection;
    const isEvents =
      success.readAs === "events" || success.readAs === "eventTexts" || success.readAs === "eventRecords";
    if (isEvents) {
      for await (const each of events(received, state)) {
        if (each.data === streamEnd && (success.readAs === "events" || connection.streamEnd !== undefined)) {
          state.lastId = "";
          return;
        }
        const { event, id, data } = each;
        options?.onEvent?.({ event, ...(id === undefined ? {} : { id }) });
        yield success.readAs === "events" ? item(data) : ((success.readAs === "eventTexts" ? data : each) as Item);
      }
      return;
    }
    switch (success.readAs) {
      case "lines":
        for await (const line of pieces(textChunks(received), "\n")) if (line.trim() !== "") yield item(line);
        return;
      case "sequence":
        // Each text begins with a record separator (RFC 7464).
        for await (const text of pieces(textChunks(received), "\u001e")) if (text.trim() !== "") yield item(text);
        return;
      case "none":
        return;
      default:
        yield (await readBody(connection, received, success, request)) as Item;
    }
  } finally {
    exchanged?.done();
  }
}

function itemOf(
  { json }: Connection,
  { call, parse = json.parse }: Pick<RestRequest<unknown>, "call" | "parse">,
  { response }: Exchanged,
  decode: (value: unknown) => unknown,
  text: string,
): unknown {
  try {
    return decode(parse(text));
  } catch (error) {
    const details = { status: "malformed", httpStatus: response.status, body: text };
    const why = error instanceof Error ? error.message : String(error);
    throw failure(call, `an item of the stream cannot be read: ${why}`, details, error);
  }
}

/** A body of items: one for each line, record separator or event. */
export function itemsBody(
  items: readonly unknown[] | undefined,
  form: "lines" | "sequence" | "events",
  type: string,
): Body | undefined {
  if (items === undefined) return undefined;
  const [before, after] = { lines: ["", "\n"], sequence: ["\u001e", "\n"], events: ["data: ", "\n\n"] }[form];
  return { data: items.map((item) => `${before ?? ""}${JSON.stringify(item)}${after ?? ""}`).join(""), type };
}
