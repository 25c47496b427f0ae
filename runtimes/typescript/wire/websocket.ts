import { authorizeBy } from "./authorized.js";
import type { CallOptions, Supplier } from "./connection.js";
import { shownAddress, startHeaders } from "./exchange.js";
import { failure } from "./failure.js";
import { errorsOf, type GraphqlConnection, type GraphqlResult } from "./graphql.js";
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
  /**
   * Gives what is sent once when a socket opens, before any subscription: credentials, which a socket has no headers for.
   * When absent, it is `{ authorization }` with what the connection sends as that header, and nothing where it sends none.
   */
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
  const initial = await (opening ?? (() => authorizationOf(connection, call, callOptions)))();
  const waiting: (GraphqlResult | Error | "complete")[] = [];
  let wake = (): void => undefined;
  const state = { isAccepted: false };
  const put = (item: GraphqlResult | Error | "complete"): void => {
    waiting.push(item);
    wake();
  };
  const stringify = ways.stringify ?? connection.json.stringify;
  const parse = ways.parse ?? connection.json.parse;
  const shown = shownAddress(address);
  let socket: Socket;
  try {
    socket = new Constructor(address, "graphql-transport-ws");
  } catch (error) {
    throw failure(call, `no socket can be opened at ${shown}`, { status: "unreachable" }, error);
  }
  const broken = (message: string, cause?: unknown): void => {
    put(failure(call, message, { status: "unreachable" }, cause));
  };
  const timer = setTimeout(() => {
    broken(`the server at ${shown} did not accept the socket within ${String(acceptMs)} ms`);
  }, acceptMs);
  const signal = callOptions?.signal;
  const abort = (): void => {
    put(failure(call, "the app gave up", { status: "aborted" }, signal?.reason));
  };
  if (signal?.aborted) abort();
  signal?.addEventListener("abort", abort);
  const tell = (message: Message): void => {
    socket.send(stringify(message));
  };
  socket.addEventListener("open", () => {
    tell(initial === undefined ? { type: "connection_init" } : { type: "connection_init", payload: initial });
  });
  socket.addEventListener("error", (event) => {
    const { message = "", error } = event as { readonly message?: string; readonly error?: unknown };
    broken(`the socket at ${shown} broke${message === "" ? "" : `: ${message}`}`, error);
  });
  socket.addEventListener("close", (event) => {
    const { code, reason } = event as { readonly code: number; readonly reason: string };
    const words = `the server closed the socket at ${shown} (${String(code)}${reason === "" ? "" : `: ${reason}`})`;
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
        state.isAccepted = true;
        wake();
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
        // Of the whole, and its end.
        put(errorsOf(call, message.payload as NonNullable<GraphqlResult["errors"]>));
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
        const silence = callOptions?.idleMs;
        const idle =
          silence !== undefined && state.isAccepted
            ? setTimeout(() => {
                put(failure(call, `no result within ${String(silence)} ms`, { status: "timed-out" }));
              }, silence)
            : undefined;
        await new Promise<void>((resolve) => (wake = resolve));
        clearTimeout(idle);
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

/** What the connection sends as its authorization with requests. */
async function authorizationOf(
  connection: GraphqlConnection,
  call: string,
  options: CallOptions | undefined,
): Promise<unknown> {
  const headers = await startHeaders(connection, options, call);
  await authorizeBy(connection, [["bearer"]], { call, headers, query: [] });
  const authorization = headers.get("authorization");
  return authorization === null ? undefined : { authorization };
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
