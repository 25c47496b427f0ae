import { readFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, it } from "vitest";
import { connection, type CallOptions, type ConnectionOptions } from "../../runtimes/typescript/wire/connection.js";
import { events, type ServerEvent, type StreamState } from "../../runtimes/typescript/wire/events.js";
import type { Exchanged } from "../../runtimes/typescript/wire/exchange.js";
import type { ReadAs } from "../../runtimes/typescript/wire/send.js";
import { receive } from "../../runtimes/typescript/wire/streams.js";
import { packageRoot } from "../support/packageRoot.js";
import { failureOf } from "../support/wireRequests.js";

interface Row {
  readonly why: string;
  readonly chunks: readonly string[];
  readonly events: readonly ServerEvent[];
  readonly lastId?: string;
  readonly retryMs?: number;
}

const { rows } = JSON.parse(readFileSync(join(packageRoot, "vectors/events.json"), "utf8")) as { rows: Row[] };

/** A response whose body arrives in chunks; "wait" stays silent for a while. */
function streamed(chunks: readonly string[], waitMs = 0, signal?: AbortSignal | null): Response {
  const body = new ReadableStream<Uint8Array>({
    async start(controller) {
      signal?.addEventListener("abort", () => {
        controller.error(signal.reason);
      });
      for (const chunk of chunks) {
        if (chunk === "wait") await new Promise((resolve) => setTimeout(resolve, waitMs));
        else if (!signal?.aborted) controller.enqueue(new TextEncoder().encode(chunk));
      }
      if (!signal?.aborted) controller.close();
    },
  });
  return new Response(body, { headers: { "content-type": "text/event-stream" } });
}

const nothing = (): void => undefined;

it.each(rows.map((row) => [row.why, row] as const))("events: %s", async (_why, row) => {
  const exchanged: Exchanged = {
    response: streamed(row.chunks),
    done: nothing,
    waiting: nothing,
    explain: () => new Error(),
  };
  const state: StreamState = { lastId: "" };
  const found: ServerEvent[] = [];
  for await (const event of events(exchanged, state)) found.push(event);
  expect(found).toEqual(row.events);
  if (row.lastId !== undefined) expect(state.lastId).toBe(row.lastId);
  expect(state.retryMs).toBe(row.retryMs);
});

interface Asked {
  readonly method: string;
  readonly lastId: string | null;
}

/** Receives a stream from a server with one response after the other. */
async function received(
  answers: readonly (Response | Error | ((signal?: AbortSignal | null) => Response))[],
  {
    options,
    settings,
    method = "GET",
    as = "events",
  }: { options?: CallOptions; settings?: ConnectionOptions; method?: string; as?: ReadAs } = {},
): Promise<{ items: unknown[]; asked: Asked[] }> {
  const asked: Asked[] = [];
  const fetch = (_url: string, init: RequestInit): Promise<Response> => {
    const answer = answers[asked.length];
    asked.push({ method: init.method ?? "", lastId: (init.headers as Headers).get("last-event-id") });
    if (typeof answer === "function") return Promise.resolve(answer(init.signal));
    return answer instanceof Response ? Promise.resolve(answer) : Promise.reject(answer ?? new Error("no more"));
  };
  const api = connection("api", "https://ostrel.example", { ...settings, fetch: fetch as typeof globalThis.fetch });
  const items: unknown[] = [];
  const request = { call: "api.notices", method, path: "/notices", answers: { 200: as, 204: "none" } } as const;
  for await (const item of receive(api, request, options)) items.push(item);
  return { items, asked };
}

describe("a stream of JSON events", () => {
  it("ends at a configured event", async () => {
    const done = (): Response => streamed(["data: 1\n\ndata: [DONE]\n\ndata: 2\n\n"]);
    expect((await received([done()])).items).toEqual([1]);
    expect(
      (await received([streamed(["data: 1\n\ndata: bye\n\n"])], { settings: { streamEnd: "bye" } })).items,
    ).toEqual([1]);
    expect(await failureOf(received([done()], { settings: { streamEnd: false } }))).toMatchObject({
      status: "malformed",
    });
    expect((await received([done()], { as: "eventTexts" })).items).toEqual(["1", "[DONE]", "2"]);
  });

  it("has names and ids next to the data", async () => {
    const seen: object[] = [];
    const options = { onEvent: (event: object) => seen.push(event) };
    const { items } = await received([streamed(["event: tide\nid: 7\ndata: {}\n\ndata: 2\n\n"])], { options });
    expect([items, seen]).toEqual([
      [{}, 2],
      [{ event: "tide", id: "7" }, { event: "message" }],
    ]);
  });

  it("reconnects from the last id until the server has no more", async () => {
    const first = streamed(["retry: 1\nid: 7\ndata: 1\n\n"]);
    const answers = [
      first,
      new Error("no route"),
      streamed(["id: 8\ndata: 2\n\n"]),
      new Response(null, { status: 204 }),
    ];
    const { items, asked } = await received(answers, { options: { reconnects: true } });
    expect(items).toEqual([1, 2]);
    expect(asked.map(({ lastId }) => lastId)).toEqual([null, "7", "7", "8"]);
  });

  it.each([
    ["without being asked to", {}, "GET", "id: 7\ndata: 1\n\n"],
    ["with POST", { reconnects: true }, "POST", "id: 7\ndata: 1\n\n"],
    ["without an id", { reconnects: true }, "GET", "data: 1\n\n"],
    ["after the text that ends it", { reconnects: true }, "GET", "id: 7\ndata: 1\n\ndata: [DONE]\n\n"],
  ])("never reconnects %s", async (_how, options, method, text) => {
    const { items, asked } = await received([streamed([`retry: 1\n${text}`])], { options, method });
    expect([items, asked.length]).toEqual([[1], 1]);
  });
});

describe("timeouts", () => {
  const slow = (signal?: AbortSignal | null): Response => streamed(["data: 1\n\n", "wait", "data: 2\n\n"], 60, signal);

  it("apply until a stream starts, and between its chunks if configured", async () => {
    expect((await received([slow], { options: { timeoutMs: 20 } })).items).toEqual([1, 2]);
    expect(await failureOf(received([slow], { options: { idleMs: 20 } }))).toMatchObject({
      status: "timed-out",
      message: "api.notices: no response within 20 ms",
    });
    expect((await received([slow], { options: { idleMs: 5_000 } })).items).toEqual([1, 2]);
  });

  it.each([false, 0, Infinity] as const)("do not exist if they are %s", async (timeoutMs) => {
    expect((await received([slow], { settings: { timeoutMs: 1 }, options: { timeoutMs } })).items).toEqual([1, 2]);
  });
});
