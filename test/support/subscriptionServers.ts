import { readFileSync } from "node:fs";
import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { join } from "node:path";
import { WebSocketServer } from "ws";
import { packageRoot } from "./packageRoot.js";

/** One row of `vectors/subscriptions.json`. */
export interface SubscriptionRow {
  readonly why: string;
  readonly results: readonly { readonly data?: unknown; readonly errors?: readonly { readonly message: string }[] }[];
  readonly ends: "complete" | "refused";
  readonly errors: "end" | "told" | "returned";
  readonly gives: readonly unknown[];
  readonly told?: readonly string[];
  readonly fails?: string;
}

export const { rows: subscriptionRows } = JSON.parse(
  readFileSync(join(packageRoot, "vectors/subscriptions.json"), "utf8"),
) as { rows: SubscriptionRow[] };

export interface SubscriptionServer {
  readonly address: string;
  /** The payloads with which sockets were opened. */
  readonly initial: readonly unknown[];
  readonly close: () => unknown;
}

const refusal = [{ message: "no" }];

/** A server that sends the results over server-sent events. It sends refusals on the next request. */
export async function eventServer({
  results,
  ends,
}: Pick<SubscriptionRow, "results" | "ends">): Promise<SubscriptionServer> {
  let asked = 0;
  const server = createServer((_request, response) => {
    if (asked++ > 0) {
      response.writeHead(403, { "content-type": "application/json" }).end(JSON.stringify({ errors: refusal }));
      return;
    }
    response.writeHead(200, { "content-type": "text/event-stream" });
    for (const result of results) response.write(`event: next\ndata: ${JSON.stringify(result)}\n\n`);
    if (ends === "complete") response.end("event: complete\ndata:\n\n");
    // It disconnects, and refuses the next request.
    else setTimeout(() => response.destroy(), 30);
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  return {
    address: `http://127.0.0.1:${String((server.address() as AddressInfo).port)}`,
    initial: [],
    close: () => server.close(),
  };
}

/** A server that sends the results over WebSocket. */
export async function socketServer({
  results,
  ends,
}: Pick<SubscriptionRow, "results"> & { ends: SubscriptionRow["ends"] | "silence" }): Promise<SubscriptionServer> {
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
  await new Promise((resolve) => server.on("listening", resolve));
  return {
    address: `ws://127.0.0.1:${String((server.address() as AddressInfo).port)}`,
    initial,
    close: () => {
      server.close();
    },
  };
}
