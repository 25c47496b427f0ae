import { describe, expect, it } from "vitest";
import WebSocket from "ws";
import { demoProject } from "../support/temporaryProject.js";

/** One client of the stand-in's socket, and what it was told. */
class Client {
  readonly told: { id?: string; type: string; payload?: { data?: Record<string, unknown> } }[] = [];
  closed: number | undefined;

  private constructor(private readonly socket: WebSocket) {
    socket.on("message", (data: Buffer) => this.told.push(JSON.parse(data.toString()) as never));
    socket.on("close", (code) => (this.closed = code));
  }

  static async open(address: string, protocol = "graphql-transport-ws"): Promise<Client> {
    const socket = new WebSocket(address, protocol);
    const client = new Client(socket);
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

  async until(isSo: (client: Client) => boolean): Promise<boolean> {
    for (let tries = 0; tries < 100 && !isSo(this); tries++) await new Promise((resolve) => setTimeout(resolve, 50));
    return isSo(this);
  }

  count(type: string, id?: string): number {
    return this.told.filter((each) => each.type === type && (id === undefined || each.id === id)).length;
  }
}

const arrivals = { query: "subscription Live { arrivals { id status } }" };

describe("subscriptions over a socket", () => {
  it("emit, several on one socket, until they are ended; queries and mistakes are answered too", async () => {
    const address = (await demoProject().play(["passages"])).replace("http:", "ws:");
    const client = await Client.open(`${address}/passages`);
    client.send({ type: "connection_init" }).send({ type: "ping" });
    expect(await client.until((each) => each.count("connection_ack") === 1 && each.count("pong") === 1)).toBe(true);
    client
      .send({ id: "1", type: "subscribe", payload: arrivals })
      .send({ id: "2", type: "subscribe", payload: arrivals });
    expect(await client.until((each) => each.count("next", "1") > 1 && each.count("next", "2") > 1)).toBe(true);
    expect(client.told.find((each) => each.id === "1")?.payload?.data?.["arrivals"]).toMatchObject({
      status: expect.any(String) as string,
    });
    client.send({ id: "1", type: "complete" });
    await new Promise((resolve) => setTimeout(resolve, 200));
    const before = client.count("next", "1");
    client.send({ id: "q", type: "subscribe", payload: { query: "{ ports { id } }" } });
    client.send({ id: "e", type: "subscribe", payload: { query: "subscription Bad { nothing }" } });
    expect(await client.until((each) => each.count("complete", "q") === 1 && each.count("error", "e") === 1)).toBe(
      true,
    );
    expect(client.count("next", "q")).toBe(1);
    const others = client.count("next", "2");
    expect(await client.until((each) => each.count("next", "2") > others)).toBe(true);
    expect(client.count("next", "1")).toBe(before);
  });

  it.each<[string, readonly (object | string)[], number]>([
    ["what is no message", [{ type: "connection_init" }, "nonsense"], 4400],
    ["a subscription before the beginning", [{ id: "1", type: "subscribe", payload: arrivals }], 4401],
    [
      "two of one name",
      [
        { type: "connection_init" },
        { id: "1", type: "subscribe", payload: arrivals },
        { id: "1", type: "subscribe", payload: arrivals },
      ],
      4409,
    ],
    ["two beginnings", [{ type: "connection_init" }, { type: "connection_init" }], 4429],
    [
      "a subscription without a query",
      [{ type: "connection_init" }, { id: "1", type: "subscribe", payload: {} }],
      4400,
    ],
  ])("close with the code of the protocol on %s", async (_name, messages, code) => {
    const address = (await demoProject().play(["passages"])).replace("http:", "ws:");
    const client = await Client.open(`${address}/passages`);
    for (const message of messages) client.send(message);
    expect(await client.until((each) => each.closed !== undefined)).toBe(true);
    expect(client.closed).toBe(code);
  });

  it("are refused where no schema is played, or by another protocol, and play goes on", async () => {
    const http = await demoProject().play();
    const address = http.replace("http:", "ws:");
    await expect(Client.open(`${address}/berths`)).rejects.toThrow("400");
    await expect(Client.open(`${address}/passages`, "other")).rejects.toThrow("400");
    expect((await fetch(http)).status).toBe(200);
  });
});
