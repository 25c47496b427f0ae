import type { Supplier } from "./connection.js";
import { failure } from "./failure.js";
import type { GraphqlResult } from "./graphql.js";
import { reconnected, type Reconnecting, type Subscribed, type Subscriptions } from "./subscribe.js";

/** As much of a WebSocket as is needed; the platform's own has it, and so do the packages for platforms without one. */
export interface Socket {
  send(data: string): void;
  close(code?: number, reason?: string): void;
  addEventListener(type: "open" | "message" | "close" | "error", listener: (event: unknown) => void): void;
}

export interface WebSocketOptions extends Reconnecting {
  /** Where subscriptions are; the connection's address with ws: in the place of http: when absent. */
  readonly url?: Supplier<string> | undefined;
  /** The constructor, where the platform has none. */
  readonly WebSocket?: (new (url: string, protocol: string) => Socket) | undefined;
  /** Sent once when a socket opens, before any subscription; for credentials, which a socket has no headers for. */
  readonly opening?: (() => unknown) | undefined;
  /** Milliseconds until the server has to accept a socket; 10,000 when absent. */
  readonly acceptMs?: number | undefined;
}

/** Subscriptions over WebSocket by the protocol `graphql-transport-ws`, each on a socket of its own. */
export function overWebSocket(options: WebSocketOptions = {}): Subscriptions {
  return (subscribed) => reconnected(subscribed, options, (each, begun) => converse(each, options, begun));
}

interface Message {
  readonly id?: string;
  readonly type: string;
  readonly payload?: unknown;
}

/** Codes of closing by which a server says that trying again will not help (4400 to 4499, but too many at once). */
function isFinal(code: number): boolean {
  return code >= 4400 && code < 4500 && code !== 4408 && code !== 4429;
}

async function* converse(
  { connection, call, payload, options: callOptions, ways }: Subscribed,
  { url, WebSocket: given, opening, acceptMs = 10_000 }: WebSocketOptions,
  begun: () => void,
): AsyncGenerator<GraphqlResult, void, undefined> {
  const platform: { readonly WebSocket?: unknown } = globalThis;
  const Constructor = given ?? (platform.WebSocket as WebSocketOptions["WebSocket"]);
  if (!Constructor)
    throw failure(call, "this platform has no WebSocket; give a constructor to overWebSocket({ WebSocket })", {
      status: "unreachable",
    });
  const address = await (typeof url === "function" ? url() : (url ?? own(connection.baseUrl)));
  const initial = await opening?.();
  const waiting: (GraphqlResult | Error | "complete")[] = [];
  let wake = (): void => undefined;
  const put = (item: GraphqlResult | Error | "complete"): void => {
    waiting.push(item);
    wake();
  };
  const stringify = ways.stringify ?? connection.json.stringify;
  const parse = ways.parse ?? connection.json.parse;
  let socket: Socket;
  try {
    socket = new Constructor(address, "graphql-transport-ws");
  } catch (error) {
    throw failure(call, `no socket can be opened at ${address}`, { status: "unreachable" }, error);
  }
  const broken = (message: string): void => {
    put(failure(call, message, { status: "unreachable" }));
  };
  const timer = setTimeout(() => {
    broken(`the server did not accept the socket within ${String(acceptMs)} ms`);
  }, acceptMs);
  const abort = (): void => {
    put(failure(call, "the app gave up", { status: "aborted" }));
  };
  const signal = callOptions?.signal;
  if (signal?.aborted) abort();
  signal?.addEventListener("abort", abort);
  const tell = (message: Message): void => {
    socket.send(stringify(message));
  };
  socket.addEventListener("open", () => {
    tell(initial === undefined ? { type: "connection_init" } : { type: "connection_init", payload: initial });
  });
  socket.addEventListener("error", () => {
    broken("the socket broke");
  });
  socket.addEventListener("close", (event) => {
    const { code, reason } = event as { readonly code: number; readonly reason: string };
    const words = `the server closed the socket (${String(code)}${reason === "" ? "" : `: ${reason}`})`;
    if (isFinal(code))
      put(failure(call, words, { status: "unexpected", httpStatus: code, headers: new Headers(), body: reason }));
    else broken(words);
  });
  socket.addEventListener("message", (event) => {
    const { data } = event as { readonly data: unknown };
    const message = read(data, parse);
    switch (message?.type) {
      case "connection_ack":
        clearTimeout(timer);
        begun();
        tell({ id: "1", type: "subscribe", payload });
        return;
      case "ping":
        tell({ type: "pong" });
        return;
      case "next":
        put(message.payload as GraphqlResult);
        return;
      case "error":
        put({ errors: message.payload as NonNullable<GraphqlResult["errors"]> });
        return;
      case "complete":
        put("complete");
        return;
      case "pong":
        return;
      default:
        put(
          failure(call, "a message is none of the protocol", {
            status: "malformed",
            httpStatus: 101,
            body: String(data),
          }),
        );
    }
  });
  let isComplete = false;
  try {
    for (;;) {
      const next = waiting.shift();
      if (next === undefined) {
        await new Promise<void>((resolve) => (wake = resolve));
        continue;
      }
      if (next === "complete") {
        isComplete = true;
        return;
      }
      if (next instanceof Error) throw next;
      yield next;
    }
  } finally {
    clearTimeout(timer);
    signal?.removeEventListener("abort", abort);
    try {
      if (!isComplete) tell({ id: "1", type: "complete" });
    } catch {
      // The socket is not open (any more), which is all that telling it is for.
    }
    socket.close(1000);
  }
}

async function own(baseUrl: Supplier<string>): Promise<string> {
  const address = typeof baseUrl === "function" ? await baseUrl() : baseUrl;
  return address.replace(/^http/, "ws");
}

function read(data: unknown, parse: (text: string) => unknown): Partial<Message> | undefined {
  try {
    const message = parse(String(data));
    return typeof message === "object" && message !== null ? message : undefined;
  } catch {
    // Told apart by the caller: what is not JSON has no type.
    return undefined;
  }
}
