import { readFileSync } from "node:fs";
import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { join } from "node:path";
import { afterEach, describe, expect, it } from "vitest";
import { WebSocket, WebSocketServer } from "ws";
import { bearer } from "../../runtimes/typescript/wire/auth.js";
import { connection, type CallOptions, type ConnectionOptions } from "../../runtimes/typescript/wire/connection.js";
import type { GraphqlConnection, GraphqlOperation, GraphqlResult } from "../../runtimes/typescript/wire/graphql.js";
import { subscribe, subscribeOutcomes } from "../../runtimes/typescript/wire/subscribe.js";
import { overWebSocket, type WebSocketOptions } from "../../runtimes/typescript/wire/websocket.js";
import { packageRoot } from "../support/packageRoot.js";

interface Row {
  readonly why: string;
  readonly results: readonly GraphqlResult[];
  readonly ends: "complete" | "refused";
  readonly errors: "end" | "told" | "returned";
  readonly gives: readonly unknown[];
  readonly told?: readonly string[];
  readonly fails?: string;
}
const { rows } = JSON.parse(readFileSync(join(packageRoot, "vectors/subscriptions.json"), "utf8")) as { rows: Row[] };
const counted: GraphqlOperation<{ n: number }, object> = {
  kind: "subscription",
  name: "Counted",
  text: "subscription Counted { n }",
};
const refusal = [{ message: "no" }];
const opened: { close: () => unknown }[] = [];
afterEach(() => {
  for (const each of opened.splice(0)) each.close();
});

/** A server that says the results over server-sent events; what it refuses, it says when it is asked again. */
async function eventServer({ results, ends }: Pick<Row, "results" | "ends">): Promise<string> {
  let asked = 0;
  const server = createServer((_request, response) => {
    if (asked++ > 0) {
      response.writeHead(403, { "content-type": "application/json" }).end(JSON.stringify({ errors: refusal }));
      return;
    }
    response.writeHead(200, { "content-type": "text/event-stream" });
    for (const result of results) response.write(`event: next\ndata: ${JSON.stringify(result)}\n\n`);
    if (ends === "complete") response.end("event: complete\ndata:\n\n");
    // It breaks off, and is refused the next time.
    else setTimeout(() => response.destroy(), 30);
  });
  opened.push(server);
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  return `http://127.0.0.1:${String((server.address() as AddressInfo).port)}`;
}

interface SocketServer {
  readonly address: string;
  readonly initial: unknown[];
}

async function socketServer({
  results,
  ends,
}: Pick<Row, "results"> & { ends: Row["ends"] | "silence" }): Promise<SocketServer> {
  const server = new WebSocketServer({ port: 0, host: "127.0.0.1" });
  const initial: unknown[] = [];
  server.on("connection", (peer) => {
    peer.on("message", (data: Buffer) => {
      const { type, payload } = JSON.parse(data.toString()) as { type: string; payload?: unknown };
      const say = (message: object): void => {
        peer.send(JSON.stringify(message));
      };
      if (type === "connection_init") {
        initial.push(payload);
        say({ type: "connection_ack" });
      }
      if (type !== "subscribe") return;
      for (const each of results) say({ id: "1", type: "next", payload: each });
      if (ends === "complete") say({ id: "1", type: "complete" });
      if (ends === "refused") say({ id: "1", type: "error", payload: refusal });
    });
  });
  opened.push(server);
  await new Promise((resolve) => server.on("listening", resolve));
  return { address: `ws://127.0.0.1:${String((server.address() as AddressInfo).port)}`, initial };
}

function connect(
  baseUrl: string,
  more: Partial<GraphqlConnection> = {},
  options: ConnectionOptions = {},
): GraphqlConnection {
  return { ...connection("api", baseUrl, options, {}, { bearer }), ...more };
}
const bySocket = (url: string, options: WebSocketOptions = {}) => ({
  subscriptions: overWebSocket({ url, WebSocket, waitMs: 1, ...options }),
});

async function heard(made: GraphqlConnection, errors: Row["errors"], options: CallOptions = {}) {
  const gives: unknown[] = [];
  const told: string[] = [];
  let fails: string | undefined;
  const first = (failure: unknown): string => (failure as Error).message.replace("api.counted: ", "");
  try {
    if (errors === "returned")
      for await (const { ok, answer, failure } of subscribeOutcomes(made, counted, {}, options))
        gives.push(ok ? answer.n : `!${first(failure)}`);
    else {
      const telling = errors === "told" ? { onErrors: (failure: Error) => told.push(first(failure)) } : {};
      for await (const { n } of subscribe(made, counted, {}, { ...options, ...telling })) gives.push(n);
    }
  } catch (error) {
    fails = first(error);
  }
  return { gives, told, fails };
}

describe("a subscription", () => {
  it.each(
    rows.flatMap((row) => (["events", "socket"] as const).map((by) => [`${row.why}, by ${by}`, by, row] as const)),
  )("%s", async (_why, by, row) => {
    const seen: unknown[] = [];
    const options: ConnectionOptions = { onFailure: (failure) => seen.push(failure) };
    const made =
      by === "events"
        ? connect(await eventServer(row), {}, options)
        : connect("http://unused.test", bySocket((await socketServer(row)).address), options);
    const { gives, told, fails } = await heard(made, row.errors);
    expect({ gives, told, fails }).toEqual({ gives: row.gives, told: row.told ?? [], fails: row.fails });
    const failed = row.gives.filter((each) => typeof each === "string").length + (row.fails === undefined ? 0 : 1);
    expect(seen).toHaveLength(failed);
  });
});

describe("a subscription over WebSocket", () => {
  const quiet = { results: [{ data: { n: 1 } }], ends: "complete" } as const;

  it.each<[string, Partial<GraphqlConnection>, ConnectionOptions, WebSocketOptions, unknown]>([
    [
      "the connection's credential",
      { auth: { bearer: () => Promise.resolve("t-1") } },
      {},
      {},
      { authorization: "Bearer t-1" },
    ],
    ["a header of the connection", {}, { headers: { Authorization: "Basic x" } }, {}, { authorization: "Basic x" }],
    ["nothing where there is none", {}, { headers: { "x-app": "1" } }, {}, undefined],
    ["what the app gives instead", { auth: { bearer: "t-1" } }, {}, { opening: () => ({ token: 2 }) }, { token: 2 }],
    ["nothing where the app gives nothing", { auth: { bearer: "t-1" } }, {}, { opening: () => undefined }, undefined],
  ])("opens with %s", async (_name, more, options, given, expected) => {
    const { address, initial } = await socketServer(quiet);
    const made = connect("http://unused.test", { ...more, ...bySocket(address, given) }, options);
    expect((await heard(made, "end")).gives).toEqual([1]);
    expect(initial).toEqual([expected]);
  });

  it("is ended by its silence where that has a limit", async () => {
    const { address } = await socketServer({ ...quiet, ends: "silence" });
    const ended = await heard(connect("http://unused.test", bySocket(address)), "end", { idleMs: 40 });
    expect(ended).toEqual({ gives: [1], told: [], fails: "no result within 40 ms" });
  });

  it("that breaks names its address, without its query, and the reason", async () => {
    const made = connect("http://unused.test", bySocket("ws://127.0.0.1:1/live?token=hush-4711"));
    const { fails } = await heard(made, "end");
    expect(fails).toBe("the socket at ws://127.0.0.1:1/live broke: connect ECONNREFUSED 127.0.0.1:1");
  });

  it("that a credential with a line end cannot open fails without showing it", async () => {
    const { address } = await socketServer(quiet);
    const { fails } = await heard(
      connect("http://x.test", { auth: { bearer: "t\nhush-4711" }, ...bySocket(address) }),
      "end",
    );
    expect(fails).toBe("the credential `bearer` cannot stand in a header");
  });
});
