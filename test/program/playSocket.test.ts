import { connect } from "node:net";
import { createClient } from "graphql-ws";
import { describe, expect, it } from "vitest";
import { WebSocket } from "ws";
import { SubscriptionClient as Client } from "../support/subscriptionClient.js";
import { demoProject } from "../support/temporaryProject.js";
import { until } from "../support/until.js";

const arrivals = { query: "subscription Live { arrivals { id status } }" };

describe("subscriptions over a WebSocket", () => {
  it("work with an independent client: subscriptions, queries, and an error", async () => {
    const address = (await demoProject().play(["passages"])).replace("http:", "ws:");
    const client = createClient({ url: `${address}/passages`, webSocketImpl: WebSocket, retryAttempts: 0 });
    const taken = async (query: string, most: number): Promise<unknown[]> => {
      const found: unknown[] = [];
      for await (const result of client.iterate({ query })) {
        found.push(result);
        if (found.length >= most) break;
      }
      return found;
    };
    expect(await taken("subscription Live { arrivals { id status } }", 3)).toHaveLength(3);
    const ports = await taken("{ ports { id } }", 9);
    expect(ports).toEqual([{ data: { ports: expect.any(Array) as unknown } }]);
    await expect(taken("subscription Bad { nothing }", 1)).rejects.toMatchObject([
      { message: expect.stringContaining("nothing") as string },
    ]);
    await client.dispose();
  });

  it("send several at a time until they end; queries and errors get a response too", async () => {
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

  it("and requests select an operation by its id, if the settings have ids", async () => {
    const project = demoProject();
    const file = "rhema.yaml";
    project.write(file, project.read(file).replace("dates: text", "dates: text, manifest: true"));
    expect((await project.run(["generate"])).code).toBe(0);
    const { operations } = JSON.parse(project.read("src/sdk/passages/operations.json")) as {
      operations: { name: string; kind: string; hash: string }[];
    };
    const idOf = (kind: string): string => operations.find((each) => each.kind === kind)?.hash ?? "";
    const http = await project.play(["passages"]);
    const query = new URLSearchParams({ documentId: idOf("query"), variables: '{"day":"2026-05-01"}' });
    const byGet = await fetch(`${http}/passages?${query.toString()}`);
    expect([byGet.status, Object.keys((await byGet.json()) as object)]).toEqual([200, ["data"]]);
    const body = JSON.stringify({ documentId: "sha256:0" });
    const refused = await fetch(`${http}/passages`, {
      method: "POST",
      body,
      headers: { "content-type": "application/json" },
    });
    expect(refused.status).toBe(400);
    expect(await refused.text()).toContain("No operation of this project has the id sha256:0");
    const client = await Client.open(`${http.replace("http:", "ws:")}/passages`);
    client.send({ type: "connection_init" });
    client.send({ id: "1", type: "subscribe", payload: { documentId: idOf("subscription"), variables: {} } });
    client.send({ id: "2", type: "subscribe", payload: { documentId: "sha256:0" } });
    expect(await client.until((each) => each.count("next", "1") > 0 && each.count("error", "2") === 1)).toBe(true);
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
  ])("close with the protocol's code for %s", async (_name, messages, code) => {
    const address = (await demoProject().play(["passages"])).replace("http:", "ws:");
    const client = await Client.open(`${address}/passages`);
    for (const message of messages) client.send(message);
    expect(await client.until((each) => each.closed !== undefined)).toBe(true);
    expect(client.closed).toBe(code);
  });

  it("do not start for a request to upgrade to HTTP/2, which gets a normal response", async () => {
    const address = new URL(await demoProject().play(["passages"]));
    const socket = connect(Number(address.port), address.hostname);
    const body = JSON.stringify({ query: "{ ports { id } }" });
    const post = (more: string): string =>
      `POST /passages HTTP/1.1\r\nHost: ${address.host}\r\n${more}Content-Type: application/json\r\nContent-Length: ${String(body.length)}\r\n\r\n${body}`;
    let said = "";
    socket.setEncoding("utf8").on("data", (part: string) => (said += part));
    const answers = async (count: number): Promise<boolean> => {
      const isThere = (): boolean => said.split('{"data":{"ports":').length > count;
      await until(isThere);
      return true;
    };
    const asked = post("Connection: Upgrade, HTTP2-Settings\r\nUpgrade: h2c\r\nHTTP2-Settings: AAMAAABkAAQAoAAA\r\n");
    // In two parts, so that the second arrives after the connection was passed on.
    socket.write(asked.slice(0, -5));
    await new Promise((resolve) => setTimeout(resolve, 100));
    socket.write(asked.slice(-5));
    expect(await answers(1)).toBe(true);
    socket.write(post(""));
    expect(await answers(2)).toBe(true);
    expect(said).not.toContain("400");
    socket.destroy();
  });

  it("are refused without a GraphQL contract or with another protocol, and play continues", async () => {
    const http = await demoProject().play();
    const address = http.replace("http:", "ws:");
    await expect(Client.open(`${address}/berths`)).rejects.toThrow("400");
    await expect(Client.open(`${address}/passages`, "other")).rejects.toThrow("400");
    expect((await fetch(http)).status).toBe(200);
  });
});
