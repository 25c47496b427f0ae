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

/** The body as text, in pieces as they come; ends the exchange when the consumer stops. */
export async function* textChunks({ response, explain, done }: Exchanged): AsyncGenerator<string, void, undefined> {
  const reader = response.body?.getReader();
  try {
    const decoder = new TextDecoder();
    while (reader !== undefined) {
      let chunk: Chunk;
      try {
        chunk = (await reader.read()) as Chunk;
      } catch (error) {
        throw explain(error);
      }
      if (chunk.done) break;
      yield decoder.decode(chunk.value, { stream: true });
    }
    const rest = decoder.decode();
    if (rest !== "") yield rest;
  } finally {
    done();
    await reader?.cancel().catch(() => {
      // The stream is already closed or broken, which is all that cancelling is for.
    });
  }
}

/** The pieces between separators; what is left at the end is a piece too. */
export async function* pieces(
  chunks: AsyncIterable<string>,
  separator: string | RegExp,
): AsyncGenerator<string, void, undefined> {
  let pending = "";
  for await (const chunk of chunks) {
    pending += chunk;
    // A carriage return at the end may be half of a line end.
    if (pending.endsWith("\r")) continue;
    const found = pending.replace(/\r\n/g, "\n").split(separator);
    pending = found.pop() ?? "";
    yield* found;
  }
  if (pending.trim() !== "") yield pending.replace(/\r\n/g, "\n");
}

/** The events of a `text/event-stream` (HTML standard, section 9.2.6); blocks without data are comments. */
export async function* events(exchanged: Exchanged): AsyncGenerator<ServerEvent, void, undefined> {
  for await (const block of pieces(textChunks(exchanged), /\n\n/)) {
    let event = "message";
    let id: string | undefined;
    const data: string[] = [];
    for (const line of block.split("\n")) {
      const [, field, value = ""] = /^([a-z]+)(?:: ?(.*))?$/.exec(line) ?? [];
      if (field === "event") event = value;
      if (field === "id") id = value;
      if (field === "data") data.push(value);
    }
    if (data.length > 0 || event !== "message")
      yield { event, data: data.join("\n"), ...(id === undefined ? {} : { id }) };
  }
}
