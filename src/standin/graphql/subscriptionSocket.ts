import { isData, type Data } from "../../core/text/parseData.js";

/** As much of a WebSocket as is needed here. */
export interface Socket {
  readonly send: (text: string) => void;
  readonly close: (code: number, reason: string) => void;
}

/** What a subscription's payload (as in a request by POST) gives: one result, or one after the other. */
export type Subscribing = (payload: Data) => Promise<object | AsyncGenerator<object, void, void>>;

/** The subprotocol that is spoken. */
export const socketProtocol = "graphql-transport-ws";

/** Codes of closing, as the protocol has them. */
const closing = { invalid: 4400, unauthorized: 4401, again: 4409, initialised: 4429 } as const;

/**
 * Speaks `graphql-transport-ws` as a server does: subscriptions of one client over one socket.
 *
 * @returns what takes the client's messages, and what ends everything when the socket has closed
 */
export function subscriptionSocket(
  socket: Socket,
  subscribe: Subscribing,
): { readonly receive: (text: string) => void; readonly closed: () => void } {
  const running = new Map<string, AsyncGenerator<object, void, void> | undefined>();
  let isInitialised = false;
  const send = (message: object): void => {
    socket.send(JSON.stringify(message));
  };

  const run = async (id: string, payload: Data): Promise<void> => {
    const results = await subscribe(payload);
    // It was ended while it began.
    if (!running.has(id)) return;
    if (!(Symbol.asyncIterator in results)) {
      running.delete(id);
      if ("errors" in results && !("data" in results)) send({ id, type: "error", payload: results.errors });
      else {
        send({ id, type: "next", payload: results });
        send({ id, type: "complete" });
      }
      return;
    }
    running.set(id, results);
    for await (const payload of results) if (running.has(id)) send({ id, type: "next", payload });
    if (running.delete(id)) send({ id, type: "complete" });
  };

  const end = (id: string): void => {
    const results = running.get(id);
    running.delete(id);
    void results?.return();
  };

  const receive = (text: string): void => {
    const message = parsed(text);
    const { id, type, payload } = message ?? {};
    if (type === "connection_init") {
      if (isInitialised) socket.close(closing.initialised, "Too many initialisation requests");
      else send({ type: "connection_ack" });
      isInitialised = true;
    } else if (type === "ping") send({ type: "pong" });
    else if (type === "pong") return;
    else if (typeof id !== "string" || (type !== "subscribe" && type !== "complete"))
      socket.close(closing.invalid, "The message is not part of the protocol");
    else if (type === "complete") end(id);
    else if (!isInitialised) socket.close(closing.unauthorized, "Unauthorized");
    else if (running.has(id)) socket.close(closing.again, `Subscriber for ${id.slice(0, 40)} already exists`);
    else if (!isData(payload) || (typeof payload["query"] !== "string" && typeof payload["documentId"] !== "string"))
      socket.close(closing.invalid, "A subscription must have a query");
    else {
      running.set(id, undefined);
      void run(id, payload);
    }
  };
  return {
    receive,
    closed: () => {
      for (const id of [...running.keys()]) end(id);
    },
  };
}

function parsed(text: string): Readonly<Record<string, unknown>> | undefined {
  try {
    const data: unknown = JSON.parse(text);
    return isData(data) ? data : undefined;
  } catch {
    return undefined;
  }
}
