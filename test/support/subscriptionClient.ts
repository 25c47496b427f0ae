import WebSocket from "ws";
import { until } from "./until.js";

/** A client of subscriptions over one socket, with the messages it received. */
export class SubscriptionClient {
  readonly told: { id?: string; type: string; payload?: { data?: Record<string, unknown> } }[] = [];
  closed: number | undefined;

  private constructor(readonly socket: WebSocket) {
    socket.on("message", (data: Buffer, isBinary) => {
      if (!isBinary) this.told.push(JSON.parse(data.toString()) as never);
    });
    socket.on("close", (code) => (this.closed = code));
  }

  static async open(
    address: string,
    protocol = "graphql-transport-ws",
    headers: Readonly<Record<string, string>> = {},
  ): Promise<SubscriptionClient> {
    const socket = new WebSocket(address, protocol, { headers });
    const client = new SubscriptionClient(socket);
    await new Promise<void>((resolve, reject) => {
      socket.once("open", resolve);
      socket.once("error", reject);
    });
    return client;
  }

  send(message: object | string): this {
    this.socket.send(typeof message === "string" ? message : JSON.stringify(message));
    return this;
  }

  async until(isSo: (client: SubscriptionClient) => boolean): Promise<boolean> {
    await until(() => isSo(this));
    return true;
  }

  count(type: string, id?: string): number {
    return this.told.filter((each) => each.type === type && (id === undefined || each.id === id)).length;
  }
}
