import { isData, type Data } from "../../core/text/parseData.js";

/** The part of a WebSocket that is needed here. */
export interface Socket {
  readonly send: (text: string) => void;
  readonly close: (code: number, reason: string) => void;
}

/** Returns the result or the results of a subscription's payload (the same as in a POST request). */
export type Subscribing = (payload: Data) => Promise<object | AsyncGenerator<object, void, void>>;

/** The supported subprotocol. */
export const socketProtocol = "graphql-transport-ws";

/** The protocol's close codes. */
const closing = { invalid: 4400, unauthorized: 4401, again: 4409, initialised: 4429 } as const;

/**
 * Serves `graphql-transport-ws`: subscriptions of one client over one socket.
 *
 * @returns a function for the client's messages, and one that ends everything after the socket has closed
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
    // It was cancelled while it was starting.
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
