import type { CallOptions, Connection } from "./connection.js";
import { failure } from "./failure.js";
import { callName, dataOf, post, type GraphqlOperation } from "./graphql.js";

/**
 * Performs a subscription over server-sent events: one answer for each `next` event, until `complete`, the end of the
 * stream, or the consumer's `break`.
 */
export async function* subscribe<Answer, Variables>(
  connection: Connection,
  operation: GraphqlOperation<Answer, Variables>,
  variables: Variables,
  options?: CallOptions,
): AsyncGenerator<Answer, void, undefined> {
  const call = callName(connection, operation.name);
  const { response, done, explain } = await post(connection, operation, variables, "text/event-stream", options);
  const reader = response.ok ? response.body?.getReader() : undefined;
  if (!reader) {
    done();
    const { status: httpStatus, headers } = response;
    throw failure(call, `the server answered ${String(httpStatus)} without a stream`, {
      status: "unexpected",
      httpStatus,
      headers,
      body: "",
    });
  }
  try {
    const decoder = new TextDecoder();
    let pending = "";
    for (;;) {
      const { value, done: ended } = await nextChunk(reader, explain);
      if (ended) return;
      pending += decoder.decode(value, { stream: true }).replaceAll("\r\n", "\n");
      const blocks = pending.split("\n\n");
      pending = blocks.pop() ?? "";
      for (const block of blocks) {
        const event = readEvent(block);
        if (event.name === "complete") return;
        if (event.name === "next") yield dataOf(call, resultOf(call, event.data) as { data?: Answer });
      }
    }
  } finally {
    done();
    await reader.cancel().catch(() => {
      // The stream is already closed or broken, which is all that cancelling is for.
    });
  }
}

interface Chunk {
  readonly done: boolean;
  readonly value?: Uint8Array;
}

async function nextChunk(reader: { read: () => Promise<unknown> }, explain: (error: unknown) => Error): Promise<Chunk> {
  try {
    return (await reader.read()) as Chunk;
  } catch (error) {
    throw explain(error);
  }
}

/** One block of a `text/event-stream` (HTML standard, section 9.2.6). */
function readEvent(block: string): { name: string; data: string } {
  let name = "message";
  const data: string[] = [];
  for (const line of block.split("\n")) {
    const [, field, value = ""] = /^([a-z]+): ?(.*)$/.exec(line) ?? [];
    if (field === "event") name = value;
    if (field === "data") data.push(value);
  }
  return { name, data: data.join("\n") };
}

function resultOf(call: string, data: string): unknown {
  try {
    return JSON.parse(data) as unknown;
  } catch (error) {
    throw failure(call, "an event is not JSON", { status: "malformed", httpStatus: 200, body: data }, error);
  }
}
