import { afterEach, describe, expect, it } from "vitest";
import { WebSocket } from "ws";
import { bearer } from "../../runtimes/typescript/wire/auth.js";
import { connection, type CallOptions, type ConnectionOptions } from "../../runtimes/typescript/wire/connection.js";
import type { GraphqlConnection, GraphqlOperation } from "../../runtimes/typescript/wire/graphql.js";
import { subscribe, subscribeOutcomes } from "../../runtimes/typescript/wire/subscribe.js";
import { overWebSocket, type WebSocketOptions } from "../../runtimes/typescript/wire/websocket.js";
import {
  eventServer,
  socketServer,
  subscriptionRows as rows,
  type SubscriptionRow as Row,
  type SubscriptionServer,
} from "../support/subscriptionServers.js";

const counted: GraphqlOperation<{ n: number }, object> = {
  kind: "subscription",
  name: "Counted",
  text: "subscription Counted { n }",
};
/** A server that is closed when the test ends. */
async function opening(server: Promise<SubscriptionServer>): Promise<SubscriptionServer> {
  const started = await server;
  opened.push(started);
  return started;
}
const opened: { close: () => unknown }[] = [];
afterEach(() => {
  for (const each of opened.splice(0)) each.close();
});

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
        ? connect((await opening(eventServer(row))).address, {}, options)
        : connect("http://unused.test", bySocket((await opening(socketServer(row))).address), options);
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
    const { address, initial } = await opening(socketServer(quiet));
    const made = connect("http://unused.test", { ...more, ...bySocket(address, given) }, options);
    expect((await heard(made, "end")).gives).toEqual([1]);
    expect(initial).toEqual([expected]);
  });

  it("ends if it is silent for longer than its limit", async () => {
    const { address } = await opening(socketServer({ ...quiet, ends: "silence" }));
    const ended = await heard(connect("http://unused.test", bySocket(address)), "end", { idleMs: 40 });
    expect(ended).toEqual({ gives: [1], told: [], fails: "no result within 40 ms" });
  });

  it("that breaks shows its address without the query, and the reason", async () => {
    const made = connect("http://unused.test", bySocket("ws://127.0.0.1:1/live?token=hush-4711"));
    const { fails } = await heard(made, "end");
    expect(fails).toBe("the socket at ws://127.0.0.1:1/live was disconnected: connect ECONNREFUSED 127.0.0.1:1");
  });

  it("with a line ending in its credential fails without showing it", async () => {
    const { address } = await opening(socketServer(quiet));
    const { fails } = await heard(
      connect("http://x.test", { auth: { bearer: "t\nhush-4711" }, ...bySocket(address) }),
      "end",
    );
    expect(fails).toBe("the credential `bearer` is not valid in a header");
  });
});
