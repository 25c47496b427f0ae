import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { getRequestListener } from "@hono/node-server";
import { auditServer } from "graphql-http";
import { createClient } from "graphql-sse";
import { afterEach, expect, it } from "vitest";
import { readContract } from "../../src/core/readContract.js";
import { createStandin } from "../../src/standin/standin.js";

const schema =
  "type Query { boat(id: ID): Boat } type Boat { id: ID! name: String! } type Subscription { moored: Boat! }";

function played() {
  const { contract, schema: read } = readContract("fleet", [{ document: "fleet.graphql", text: schema }]);
  if (!contract) throw new Error("The schema cannot be read.");
  return createStandin([{ contract, schema: read, raw: undefined }], { seed: 1, eventEveryMs: 5 });
}

it("passes an independent audit of GraphQL over HTTP, in every MUST, SHOULD and MAY", async () => {
  const app = played();
  const results = await auditServer({
    url: "http://localhost/fleet",
    fetchFn: (url: string, init: RequestInit) => app.fetch(new Request(url, init)),
  });
  const failed = results.flatMap((each) =>
    each.status === "ok" ? [] : [`${each.status} ${each.name}: ${each.reason}`],
  );
  expect(failed).toEqual([]);
  expect(results.length).toBeGreaterThan(50);
});

const closing: (() => void)[] = [];
afterEach(() => {
  for (const close of closing.splice(0)) close();
});

it("serves queries, mutations and subscriptions over events to an independent client", async () => {
  const app = played();
  const server = createServer(
    (incoming, outgoing) => void getRequestListener((request) => app.fetch(request))(incoming, outgoing),
  );
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  const client = createClient({
    url: `http://127.0.0.1:${String((server.address() as AddressInfo).port)}/fleet`,
    retryAttempts: 0,
  });
  closing.push(() => {
    client.dispose();
    server.closeAllConnections();
    server.close();
  });
  const [first] = await taken(client.iterate({ query: '{ boat(id: "b-1") { id } }' }), 9);
  expect(first).toEqual({ data: { boat: { id: "b-1" } } });
  const events = await taken(client.iterate({ query: "subscription { moored { id name } }" }), 3);
  expect(events).toHaveLength(3);
  for (const event of events) expect(event).toMatchObject({ data: { moored: { id: expect.any(String) as unknown } } });
  await expect(taken(client.iterate({ query: "{ nope }" }), 1)).rejects.toThrow();
});

/** As many results as are wanted or available. */
async function taken(results: AsyncIterable<unknown>, most: number): Promise<unknown[]> {
  const found: unknown[] = [];
  for await (const result of results) {
    found.push(result);
    if (found.length >= most) break;
  }
  return found;
}
