import { authorizeBy } from "./authorized.js";
import type { CallOptions, Supplier } from "./connection.js";
import { shownAddress, startHeaders } from "./exchange.js";
import { failure } from "./failure.js";
import {
  errorsOf,
  type GraphqlConnection,
  type GraphqlResult,
  type Subscribed,
  type Subscriptions,
} from "./graphql.js";
import { reconnected, type Reconnecting } from "./subscribe.js";

/**
 * The part of WebSocket that is needed here. The platform's own has it, and so do packages for platforms without one.
 */
export interface Socket {
  send(data: string): void;
  close(code?: number, reason?: string): void;
  addEventListener(type: "open" | "message" | "close" | "error", listener: (event: unknown) => void): void;
}

export interface WebSocketOptions extends Reconnecting {
  /** The address for subscriptions. Default: the connection's address with ws: in place of http:. */
  readonly url?: Supplier<string> | undefined;
  /** The constructor, if the platform has none. */
  readonly WebSocket?: (new (url: string, protocol: string) => Socket) | undefined;
  /**
   * Returns the payload that is sent once when a socket opens, before any subscription. It usually contains
   * credentials, because a browser's socket has no headers for them. Default: `{ authorization }` with the connection's
   * header of that name, or nothing if there is none.
   */
  readonly opening?: (() => unknown) | undefined;
  /** Milliseconds until the server must accept a socket. Default: 10,000. */
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

/** Close codes after which another attempt is useless (4400 to 4499, except too many requests). */
function isFinal(code: number): boolean {
  return code >= 4400 && code < 4500 && code !== 4408 && code !== 4429;
}

type Waiting = GraphqlResult | Error | "complete";

async function* converse(
  subscribed: Subscribed,
  { url, WebSocket: given, opening, acceptMs = 10_000 }: WebSocketOptions,
  begun: () => void,
): AsyncGenerator<GraphqlResult, void, undefined> {
  const { connection, call, options } = subscribed;
  const platform: { readonly WebSocket?: unknown } = globalThis;
  const Constructor = given ?? (platform.WebSocket as WebSocketOptions["WebSocket"]);
  if (!Constructor)
    throw failure(call, "this platform has no WebSocket; pass a constructor to overWebSocket({ WebSocket })", {
      status: "unreachable",
    });
  const address = await (typeof url === "function" ? url() : (url ?? own(connection.baseUrl)));
  const initial = await (opening ?? (() => authorizationOf(connection, call, options)))();
  const shown = shownAddress(address);
  let socket: Socket;
  try {
    socket = new Constructor(address, "graphql-transport-ws");
  } catch (error) {
    throw failure(call, `no socket can be opened at ${shown}`, { status: "unreachable" }, error);
  }
  const conversation = new Conversation(subscribed, socket, { shown, initial, begun });
  conversation.start(acceptMs);
  let isComplete = false;
  try {
    for (;;) {
      const next = await conversation.next();
      if (next === "complete") {
        isComplete = true;
        return;
      }
      if (next instanceof Error) throw next;
      yield next;
    }
  } finally {
    conversation.end(isComplete);
  }
}

/** One subscription on a socket: the results that were not consumed yet, and the messages to the server. */
class Conversation {
  private readonly subscribed: Subscribed;
  private readonly socket: Socket;
  private readonly how: { readonly shown: string; readonly initial: unknown; readonly begun: () => void };
  private readonly waiting: Waiting[] = [];
  private isAccepted = false;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(subscribed: Subscribed, socket: Socket, how: Conversation["how"]) {
    this.subscribed = subscribed;
    this.socket = socket;
    this.how = how;
  }

  private wake = (): void => undefined;

  private readonly abort = (): void => {
    const { call, options } = this.subscribed;
    this.put(failure(call, "the app cancelled the call", { status: "aborted" }, options?.signal?.reason));
  };

  /** Listens to the socket and waits until the server has accepted it. */
  start(acceptMs: number): void {
    const { socket } = this;
    const { shown, initial } = this.how;
    this.timer = setTimeout(() => {
      this.broken(`the server at ${shown} did not accept the socket within ${String(acceptMs)} ms`);
    }, acceptMs);
    const signal = this.subscribed.options?.signal;
    if (signal?.aborted) this.abort();
    signal?.addEventListener("abort", this.abort);
    socket.addEventListener("open", () => {
      this.tell(initial === undefined ? { type: "connection_init" } : { type: "connection_init", payload: initial });
    });
    socket.addEventListener("error", (event) => {
      const { message = "", error } = event as { readonly message?: string; readonly error?: unknown };
      this.broken(`the socket at ${shown} was disconnected${message === "" ? "" : `: ${message}`}`, error);
    });
    socket.addEventListener("close", (event) => {
      this.closed(event as { readonly code: number; readonly reason: string });
    });
    socket.addEventListener("message", (event) => {
      this.read((event as { readonly data: unknown }).data);
    });
  }

  /** The next result, as soon as it arrives. */
  async next(): Promise<Waiting> {
    const { call, options } = this.subscribed;
    for (;;) {
      const next = this.waiting.shift();
      if (next !== undefined) return next;
      const silence = options?.idleMs;
      const idle =
        silence !== undefined && this.isAccepted
          ? setTimeout(() => {
              this.put(failure(call, `no result within ${String(silence)} ms`, { status: "timed-out" }));
            }, silence)
          : undefined;
      await new Promise<void>((resolve) => (this.wake = resolve));
      clearTimeout(idle);
    }
  }

  end(isComplete: boolean): void {
    clearTimeout(this.timer);
    this.subscribed.options?.signal?.removeEventListener("abort", this.abort);
    try {
      if (!isComplete) this.tell({ id: "1", type: "complete" });
    } catch {
      // The socket is not open, so the message is not needed.
    }
    this.socket.close(1000);
  }

  private put(item: Waiting): void {
    this.waiting.push(item);
    this.wake();
  }

  private broken(message: string, cause?: unknown): void {
    this.put(failure(this.subscribed.call, message, { status: "unreachable" }, cause));
  }

  private tell(message: Message): void {
    const { ways, connection } = this.subscribed;
    this.socket.send((ways.stringify ?? connection.json.stringify)(message));
  }

  private closed({ code, reason }: { readonly code: number; readonly reason: string }): void {
    const { shown } = this.how;
    const words = `the server closed the socket at ${shown} (${String(code)}${reason === "" ? "" : `: ${reason}`})`;
    if (!isFinal(code)) this.broken(words);
    else {
      const details = { status: "unexpected", httpStatus: code, headers: new Headers(), body: reason } as const;
      this.put(failure(this.subscribed.call, words, details));
    }
  }

  private read(data: unknown): void {
    const { call, connection, ways, payload } = this.subscribed;
    const message = read(data, ways.parse ?? connection.json.parse);
    switch (message?.type) {
      case "connection_ack":
        clearTimeout(this.timer);
        this.isAccepted = true;
        this.wake();
        this.how.begun();
        this.tell({ id: "1", type: "subscribe", payload });
        return;
      case "ping":
        this.tell({ type: "pong" });
        return;
      case "next":
        this.put(message.payload as GraphqlResult);
        return;
      case "error":
        // The end of the whole subscription.
        this.put(errorsOf(call, message.payload as NonNullable<GraphqlResult["errors"]>));
        return;
      case "complete":
        this.put("complete");
        return;
      case "pong":
        return;
      default: {
        const details = { status: "malformed", httpStatus: 101, body: String(data) } as const;
        this.put(failure(call, "a message does not follow the protocol", details));
      }
    }
  }
}

/** The authorization that the connection sends with requests. */
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
    // The caller handles text that is not JSON, because it has no type.
    return undefined;
  }
}
