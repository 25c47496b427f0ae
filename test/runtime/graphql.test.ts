import { createServer, type IncomingMessage, type Server, type ServerResponse } from "node:http";
import type { AddressInfo } from "node:net";
import { afterEach, describe, expect, it } from "vitest";
import { WebSocket, WebSocketServer, type WebSocket as Peer } from "ws";
import { bearer } from "../../runtimes/typescript/wire/auth.js";
import { connection, type CallOptions } from "../../runtimes/typescript/wire/connection.js";
import {
  execute,
  type GraphqlConnection,
  type GraphqlOperation,
  type GraphqlOptions,
  type GraphqlWays,
} from "../../runtimes/typescript/wire/graphql.js";
import { renewable } from "../../runtimes/typescript/wire/layers.js";
import { overEvents, subscribe } from "../../runtimes/typescript/wire/subscribe.js";
import { uploads } from "../../runtimes/typescript/wire/uploads.js";
import { overWebSocket } from "../../runtimes/typescript/wire/websocket.js";

const servers: (Server | WebSocketServer)[] = [];
afterEach(() => {
  for (const server of servers.splice(0)) {
    if ("closeAllConnections" in server) server.closeAllConnections();
    server.close();
  }
});

interface Seen {
  readonly request: IncomingMessage;
  readonly body: string;
}

async function answering(
  answer: (response: ServerResponse, seen: Seen, count: number) => void,
): Promise<{ address: string; seen: Seen[] }> {
  const seen: Seen[] = [];
  const server = createServer((request, response) => {
    let body = "";
    request.setEncoding("latin1").on("data", (part: string) => (body += part));
    request.on("end", () => {
      seen.push({ request, body });
      answer(response, { request, body }, seen.length);
    });
  });
  servers.push(server);
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  return { address: `http://127.0.0.1:${String((server.address() as AddressInfo).port)}/graphql`, seen };
}

const connect = (baseUrl: string, options: GraphqlOptions = {}): GraphqlConnection => ({
  ...connection("fleet", "", { ...options, baseUrl }, { ...options.auth }, { bearer }),
  queriesBy: options.queriesBy,
  sends: options.sends,
  subscriptions: options.subscriptions,
});
const boats: GraphqlOperation<{ boats: { id: string }[] }, object> = {
  kind: "query",
  name: "Boats",
  text: "query Boats { boats { id } }",
  id: "sha256:b0a7",
};
const heard: GraphqlOperation<{ heard: number }, object> = {
  kind: "subscription",
  name: "Heard",
  text: "subscription Heard { heard }",
};
const json = (
  response: ServerResponse,
  value: unknown,
  status = 200,
  type = "application/graphql-response+json",
): void => {
  response.writeHead(status, { "content-type": type }).end(JSON.stringify(value));
};
const failureOf = async (call: Promise<unknown>): Promise<Record<string, unknown>> =>
  call.then(
    () => ({}),
    (error: unknown) => error as Record<string, unknown>,
  );

describe("GraphQL over HTTP", () => {
  it("sends queries by POST, or by GET if configured, and mutations always by POST", async () => {
    const { address, seen } = await answering((response) => {
      json(response, { data: { boats: [] } });
    });
    expect(await execute(connect(address), boats, { first: 1 })).toEqual({ boats: [] });
    expect(seen[0]?.request.headers).toMatchObject({
      accept: "application/graphql-response+json, application/json;q=0.9",
      "content-type": "application/json",
    });
    expect(JSON.parse(seen[0]?.body ?? "")).toEqual({
      query: boats.text,
      operationName: "Boats",
      variables: { first: 1 },
    });
    const byGet = connect(`${address}?key=1`, { queriesBy: "GET" });
    await execute(byGet, boats, { text: "a&b=ü" });
    const url = new URL(seen[1]?.request.url ?? "", address);
    expect([seen[1]?.request.method, Object.fromEntries(url.searchParams)]).toEqual([
      "GET",
      { key: "1", query: boats.text, operationName: "Boats", variables: '{"text":"a&b=ü"}' },
    ]);
    await execute(byGet, { ...boats, kind: "mutation" }, {});
    expect(seen[2]?.request.method).toBe("POST");
  });

  it("sends ids instead of queries if an operation has one", async () => {
    const { address, seen } = await answering((response) => {
      json(response, { data: {} });
    });
    await execute(connect(address, { sends: "id" }), boats, {});
    expect(JSON.parse(seen[0]?.body ?? "")).toEqual({
      documentId: "sha256:b0a7",
      operationName: "Boats",
      variables: {},
    });
    const { id: _id, ...without } = boats;
    await execute(connect(address, { sends: "id" }), without, {});
    expect(JSON.parse(seen[1]?.body ?? "")).toHaveProperty("query", boats.text);
  });

  it.each<[name: string, answer: (response: ServerResponse) => void, expected: object]>([
    [
      "errors beside partial data",
      (response) => {
        json(response, { data: { boats: [{ id: "1" }] }, errors: [{ message: "no more", path: ["boats", 1] }] });
      },
      {
        status: "errors",
        data: { boats: [{ id: "1" }] },
        errors: [{ message: "no more", path: ["boats", 1] }],
        message: "fleet.boats: no more",
      },
    ],
    [
      "a request refused with 400",
      (response) => {
        json(response, { errors: [{ message: "unknown field" }] }, 400);
      },
      { status: "errors", data: null, message: "fleet.boats: unknown field" },
    ],
    [
      "data that is null",
      (response) => {
        json(response, { data: null });
      },
      { status: "errors", errors: [], data: null },
    ],
    [
      "a status without a result",
      (response) => response.writeHead(502).end("<h1>bad</h1>"),
      { status: "unexpected", httpStatus: 502 },
    ],
    ["what is no result", (response) => response.end("[]"), { status: "malformed", body: "[]" }],
    [
      "an answer in pieces",
      (response) => response.setHeader("content-type", 'multipart/mixed; boundary="-"').end("---"),
      { status: "malformed", message: expect.stringContaining("remove @defer and @stream") as unknown },
    ],
    [
      "the first piece of one",
      (response) => {
        json(response, { data: { boats: [] }, hasNext: true });
      },
      { status: "malformed", message: expect.stringContaining("in parts") as unknown },
    ],
  ])("%s is a typed failure", async (_, answer, expected) => {
    const { address } = await answering(answer);
    const told: unknown[] = [];
    const failure = await failureOf(execute(connect(address, { onFailure: (each) => told.push(each) }), boats, {}));
    expect({ ...failure, message: failure["message"] }).toMatchObject({ call: "fleet.boats", ...expected });
    expect(told).toEqual([failure]);
  });

  it("a rejected credential is renewed once for all calls, and hooks and the address work as in REST", async () => {
    const { address, seen } = await answering((response, { request }) => {
      if (request.headers.authorization === "Bearer t1") json(response, { data: { boats: [] } });
      else json(response, { errors: [{ message: "who?" }] }, 401);
    });
    let made = 0;
    const token = renewable(() => Promise.resolve(`t${String(made++)}`));
    const own = { ...connect(address, { auth: { bearer: token } }), baseUrl: () => Promise.resolve(address) };
    await Promise.all(Array.from({ length: 5 }, () => execute(own, boats, {})));
    expect([made, seen.length]).toEqual([2, 10]);
    const statuses: number[] = [];
    await execute(own, boats, {}, { onAnswer: ({ status }) => statuses.push(status), headers: { "x-a": "1" } });
    expect([statuses, seen.at(-1)?.request.headers["x-a"]]).toEqual([[200], "1"]);
    const controller = new AbortController();
    controller.abort();
    expect(await failureOf(execute(own, boats, {}, { signal: controller.signal }))).toMatchObject({
      status: "aborted",
    });
  });

  it("sends files in variables as multipart: the request, a map, then each file once", async () => {
    const { address, seen } = await answering((response) => {
      json(response, { data: { boats: [] } });
    });
    const [photo, plan] = [new Blob(["P1"], { type: "image/png" }), new File(["P2"], "plan.txt")];
    const variables = { id: 1, photos: [photo, null, plan], deep: { again: photo } };
    await execute(connect(address), boats, variables, undefined, { form: uploads });
    const { request, body } = seen[0] ?? {};
    expect(request?.headers["content-type"]).toMatch(/^multipart\/form-data; boundary=/);
    expect(request?.headers["graphql-require-preflight"]).toBe("1");
    const parts = body?.split(/\r\n--|^--/m).map((part) => part.split("\r\n\r\n")) ?? [];
    const named = Object.fromEntries(
      parts.map(([head = "", value = ""]) => [/name="([^"]*)"/.exec(head)?.[1] ?? "", { head, value }]),
    );
    expect(JSON.parse(named["operations"]?.value ?? "")).toEqual({
      query: boats.text,
      operationName: "Boats",
      variables: { id: 1, photos: [null, null, null], deep: { again: null } },
    });
    expect(JSON.parse(named["map"]?.value ?? "")).toEqual({
      "0": ["variables.photos.0", "variables.deep.again"],
      "1": ["variables.photos.2"],
    });
    expect([named["0"]?.value, named["1"]?.value, named["1"]?.head]).toEqual([
      "P1",
      "P2",
      expect.stringContaining('filename="plan.txt"'),
    ]);
    await execute(connect(address), boats, { id: 1 }, undefined, { form: uploads });
    expect(seen[1]?.request.headers["content-type"]).toBe("application/json");
  });

  it("converts values in both directions, partial data too", async () => {
    const at = new Date("2026-05-01T08:30:00Z");
    const { address, seen } = await answering((response, _, count) => {
      json(response, { data: { at: at.toISOString() }, ...(count === 2 ? { errors: [{ message: "half" }] } : {}) });
    });
    const dates = {
      decode: (value: unknown) => ({ at: new Date((value as { at: string }).at) }),
      encode: (value: unknown) => ({ since: (value as { since: Date }).since.getTime() }),
    };
    const ways: GraphqlWays = { answer: dates, variables: dates };
    expect(await execute(connect(address), boats, { since: at }, undefined, ways)).toEqual({ at });
    expect(JSON.parse(seen[0]?.body ?? "")).toHaveProperty("variables", { since: at.getTime() });
    expect(await failureOf(execute(connect(address), boats, { since: at }, undefined, ways))).toMatchObject({
      data: { at },
    });
  });
});

async function itemsOf(
  server: string,
  options: GraphqlOptions,
  most = 99,
  call?: CallOptions,
): Promise<{ items: unknown[]; failure?: Record<string, unknown> }> {
  const items: unknown[] = [];
  try {
    for await (const item of subscribe(connect(server, options), heard, {}, call)) {
      items.push(item.heard);
      if (items.length >= most) break;
    }
  } catch (error) {
    return { items, failure: error as Record<string, unknown> };
  }
  return { items };
}
const event = (value: unknown): string => `event: next\ndata: ${JSON.stringify(value)}\n\n`;

describe("subscriptions over server-sent events", () => {
  it("return events one by one, and reconnect if the connection breaks", async () => {
    const { address, seen } = await answering((response, _, count) => {
      response.writeHead(200, { "content-type": "text/event-stream" });
      response.write(`:\n\n${event({ data: { heard: count } })}`);
      if (count < 3) setTimeout(() => response.destroy(), 20);
      else response.end("event: complete\ndata:\n\n");
    });
    expect(await itemsOf(address, { subscriptions: overEvents({ waitMs: 5 }) })).toEqual({ items: [1, 2, 3] });
    expect(seen).toHaveLength(3);
    expect(seen[0]?.request.headers.accept).toBe("text/event-stream");
  });

  it("fail after the configured number of retries, and at once if they never started", async () => {
    const { address, seen } = await answering((response, _, count) => {
      if (count > 1) response.destroy();
      else {
        response.writeHead(200, { "content-type": "text/event-stream" });
        response.write(event({ data: { heard: 1 } }), () => setTimeout(() => response.destroy(), 20));
      }
    });
    const { items, failure } = await itemsOf(address, { subscriptions: overEvents({ waitMs: 2, tries: 2 }) });
    expect([items, failure?.["status"], seen.length]).toEqual([[1], "unreachable", 3]);
    const never = await itemsOf("http://127.0.0.1:1/graphql", {});
    expect(never.failure).toMatchObject({ status: "unreachable" });
  });

  it.each<[name: string, answer: (response: ServerResponse) => void, expected: object]>([
    [
      "errors of one result",
      (response) =>
        response.setHeader("content-type", "text/event-stream").end(event({ errors: [{ message: "fog" }] })),
      { status: "errors", errors: [{ message: "fog" }] },
    ],
    [
      "a refusal as a result",
      (response) => {
        json(response, { errors: [{ message: "not you" }] }, 403);
      },
      { status: "errors", errors: [{ message: "not you" }] },
    ],
    [
      "an answer that is no stream",
      (response) => {
        json(response, { data: { heard: 1 } });
      },
      { status: "unexpected" },
    ],
    [
      "an event that is no result",
      (response) => response.setHeader("content-type", "text/event-stream").end("event: next\ndata: {\n\n"),
      { status: "malformed" },
    ],
  ])("%s is a typed failure", async (_, answer, expected) => {
    const { address } = await answering(answer);
    expect((await itemsOf(address, {})).failure).toMatchObject({ call: "fleet.heard", ...expected });
  });
});

type Said = Readonly<Record<string, unknown>>;

/** A server of the protocol that handles each message as a test defines. */
async function sockets(
  onMessage: (peer: Peer, message: Said, count: number) => void,
): Promise<{ address: string; said: Said[]; opened: () => number }> {
  const server = new WebSocketServer({ port: 0, host: "127.0.0.1", handleProtocols: () => "graphql-transport-ws" });
  servers.push(server);
  const said: Said[] = [];
  let opened = 0;
  server.on("connection", (peer) => {
    const count = ++opened;
    peer.on("message", (data: Buffer) => {
      const message = JSON.parse(data.toString()) as Said;
      said.push(message);
      onMessage(peer, message, count);
    });
  });
  await new Promise((resolve) => server.on("listening", resolve));
  return { address: `ws://127.0.0.1:${String((server.address() as AddressInfo).port)}`, said, opened: () => opened };
}
const tell = (peer: Peer, message: Said): void => {
  peer.send(JSON.stringify(message));
};
const overSocket = (url: string, more: Parameters<typeof overWebSocket>[0] = {}): GraphqlOptions => ({
  subscriptions: overWebSocket({ url, WebSocket, waitMs: 5, ...more }),
});

describe("subscriptions over WebSocket (graphql-transport-ws)", () => {
  it("open with the app's payload, subscribe, reply to pings, and end when complete", async () => {
    const { address, said } = await sockets((peer, { type }) => {
      if (type === "connection_init") {
        tell(peer, { type: "ping" });
        tell(peer, { type: "connection_ack" });
      }
      if (type !== "subscribe") return;
      for (const heardNow of [1, 2]) tell(peer, { id: "1", type: "next", payload: { data: { heard: heardNow } } });
      tell(peer, { id: "1", type: "complete" });
    });
    const opening = (): Promise<Said> => Promise.resolve({ token: "t" });
    expect(await itemsOf("http://unused.test/graphql", overSocket(address, { opening }))).toEqual({ items: [1, 2] });
    expect(said).toEqual([
      { type: "connection_init", payload: { token: "t" } },
      { type: "pong" },
      { id: "1", type: "subscribe", payload: { query: heard.text, operationName: "Heard", variables: {} } },
    ]);
  });

  it("send complete if the app stops, and use the connection's address", async () => {
    const { address, said } = await sockets((peer, { type }) => {
      if (type === "connection_init") tell(peer, { type: "connection_ack" });
      if (type === "subscribe") tell(peer, { id: "1", type: "next", payload: { data: { heard: 7 } } });
    });
    const options = { subscriptions: overWebSocket({ WebSocket }) };
    expect(await itemsOf(address.replace("ws:", "http:"), options, 1)).toEqual({ items: [7] });
    await expect.poll(() => said.at(-1)).toEqual({ id: "1", type: "complete" });
  });

  it("reconnect if the WebSocket breaks, unless the server's code forbids it", async () => {
    const breaking = await sockets((peer, { type }, count) => {
      if (type === "connection_init") tell(peer, { type: "connection_ack" });
      if (type !== "subscribe") return;
      tell(peer, { id: "1", type: "next", payload: { data: { heard: count } } });
      if (count < 3)
        setTimeout(() => {
          peer.terminate();
        }, 10);
      else tell(peer, { id: "1", type: "complete" });
    });
    expect(await itemsOf("http://x.test", overSocket(breaking.address))).toEqual({ items: [1, 2, 3] });
    const refusing = await sockets((peer) => {
      peer.close(4403, "Forbidden");
    });
    const { failure } = await itemsOf("http://x.test", overSocket(refusing.address));
    expect(failure).toMatchObject({ status: "unexpected", httpStatus: 4403, body: "Forbidden" });
    expect(refusing.opened()).toBe(1);
  });

  it.each<[name: string, answer: (peer: Peer) => void, expected: object]>([
    [
      "errors of the whole",
      (peer) => {
        tell(peer, { id: "1", type: "error", payload: [{ message: "no such field" }] });
      },
      { status: "errors", errors: [{ message: "no such field" }] },
    ],
    [
      "errors of one result",
      (peer) => {
        tell(peer, { id: "1", type: "next", payload: { data: null, errors: [{ message: "fog" }] } });
      },
      { status: "errors", data: null },
    ],
    [
      "a message of no protocol",
      (peer) => {
        peer.send("hello");
      },
      { status: "malformed", body: "hello" },
    ],
  ])("%s is a typed failure", async (_, answer, expected) => {
    const { address } = await sockets((peer, { type }) => {
      if (type === "connection_init") tell(peer, { type: "connection_ack" });
      if (type === "subscribe") answer(peer);
    });
    expect((await itemsOf("http://x.test", overSocket(address))).failure).toMatchObject({
      call: "fleet.heard",
      ...expected,
    });
  });

  it("fail if a server never accepts, the app cancels, or the platform has no WebSocket", async () => {
    const silent = await sockets(() => undefined);
    const { failure } = await itemsOf("http://x.test", overSocket(silent.address, { acceptMs: 30 }));
    expect(failure).toMatchObject({
      status: "unreachable",
      message: expect.stringContaining("within 30 ms") as unknown,
    });
    const signal = AbortSignal.timeout(30);
    expect((await itemsOf("http://x.test", overSocket(silent.address), 9, { signal })).failure).toMatchObject({
      status: "aborted",
    });
    const nowhere = await itemsOf("http://x.test", overSocket("no address at all"));
    expect(nowhere.failure).toMatchObject({ status: "unreachable", call: "fleet.heard" });
    const none = await itemsOf("http://x.test", { subscriptions: overWebSocket() });
    expect(none.failure?.["message"]).toMatch(/pass a constructor to overWebSocket/);
  });
});
