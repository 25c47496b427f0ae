import type { Body } from "./bodies.js";
import type { CallOptions, Connection } from "./connection.js";
import { events, pieces, textChunks } from "./events.js";
import type { Exchanged } from "./exchange.js";
import { failure } from "./failure.js";
import { answered, begin, readBody, told, type RestRequest } from "./send.js";

/**
 * Performs a call whose answer comes item by item. It ends with the stream, the consumer's `break`, or the signal;
 * a failure is thrown where the items are awaited.
 */
export async function* receive<Item>(
  connection: Connection,
  request: RestRequest<Item>,
  options?: CallOptions,
): AsyncGenerator<Item, void, undefined> {
  let exchanged: Exchanged | undefined;
  try {
    exchanged = await begin(connection, request, options);
    const received = exchanged;
    const success = await answered(connection, received, request);
    const decode = request.conversions?.[success.key]?.decode ?? ((value: unknown) => value);
    const item = (text: string): Item => itemOf(connection, request, received, decode, text) as Item;
    switch (success.readAs) {
      case "lines":
        for await (const line of pieces(textChunks(received), "\n")) if (line.trim() !== "") yield item(line);
        return;
      case "sequence":
        // Each text begins with a record separator (RFC 7464).
        for await (const text of pieces(textChunks(received), "\u001e")) if (text.trim() !== "") yield item(text);
        return;
      case "events":
        for await (const { data } of events(received)) yield item(data);
        return;
      case "eventTexts":
        for await (const { data } of events(received)) yield data as Item;
        return;
      case "eventRecords":
        for await (const event of events(received)) yield event as Item;
        return;
      case "none":
        return;
      default:
        yield (await readBody(connection, received, success, request)) as Item;
    }
  } catch (error) {
    throw told(connection, error);
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

/** A body of items: one per line, per record separator, or per event. */
export function itemsBody(
  items: readonly unknown[] | undefined,
  form: "lines" | "sequence" | "events",
  type: string,
): Body | undefined {
  if (items === undefined) return undefined;
  const [before, after] = { lines: ["", "\n"], sequence: ["\u001e", "\n"], events: ["data: ", "\n\n"] }[form];
  return { data: items.map((item) => `${before ?? ""}${JSON.stringify(item)}${after ?? ""}`).join(""), type };
}
