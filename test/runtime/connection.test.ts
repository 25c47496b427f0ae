import { createServer, type IncomingMessage, type ServerResponse } from "node:http";
import type { AddressInfo, Socket } from "node:net";
import { inspect } from "node:util";
import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from "vitest";
import { bearer, keyInQuery } from "../../runtimes/typescript/wire/auth.js";
import { bytesBody, jsonBody } from "../../runtimes/typescript/wire/bodies.js";
import {
  connection,
  type Connection,
  type ConnectionOptions,
  type Credentials,
} from "../../runtimes/typescript/wire/connection.js";
import { eachAnswer, eachRequest, renewable, retrying } from "../../runtimes/typescript/wire/layers.js";
import { problemOf } from "../../runtimes/typescript/wire/problem.js";
import { send, type RestRequest } from "../../runtimes/typescript/wire/send.js";
import { receive } from "../../runtimes/typescript/wire/streams.js";
import { failureOf, request } from "../support/wireRequests.js";

type Reply = (response: ServerResponse, request: IncomingMessage, socket: Socket) => void;

/** The server's next responses. The last one is repeated. */
let replies: Reply[] = [];
let asked = 0;
let address = "";
const server = createServer((request, response) => {
  asked++;
  const reply = replies.length > 1 ? replies.shift() : replies[0];
  request.resume().on("end", () => reply?.(response, request, request.socket));
});
const answers =
  (status: number, body: string, headers: Record<string, string> = {}): Reply =>
  (response) =>
    response.writeHead(status, { "content-type": "application/json", ...headers }).end(body);

beforeAll(async () => {
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  address = `http://127.0.0.1:${String((server.address() as AddressInfo).port)}`;
});
afterAll(() => {
  server.closeAllConnections();
  server.close();
});
beforeEach(() => {
  asked = 0;
  replies = [answers(200, '{"id":"N-07"}')];
});

const connect = (options: ConnectionOptions = {}, auth: Connection["auth"] = {}): Connection =>
  connection("api", address, options, auth, { token: bearer, key: keyInQuery("key") });

describe("retries", () => {
  const quick = retrying({ times: 2, pauseMs: 1 });

  it("send safe requests again after temporary statuses, and return the next response", async () => {
    replies = [answers(503, ""), answers(429, "", { "retry-after": "0" }), answers(200, "1")];
    expect(await send(connect({ around: [quick] }), request())).toBe(1);
    expect(asked).toBe(3);
  });

  it("end after the configured count with the last response", async () => {
    replies = [answers(502, "")];
    const failed = await failureOf(send(connect({ around: [quick] }), request()));
    expect([failed["status"], failed["httpStatus"], asked]).toEqual(["unexpected", 502, 3]);
  });

  it("send requests again that could not be delivered", async () => {
    replies = [(_response, _request, socket) => socket.destroy(), answers(200, "2")];
    expect(await send(connect({ around: [quick] }), request())).toBe(2);
  });

  it("never repeat unsafe requests or those with a permanent failure", async () => {
    replies = [answers(503, "")];
    await failureOf(send(connect({ around: [quick] }), request({ method: "POST", body: jsonBody({}) })));
    replies = [answers(500, "")];
    await failureOf(send(connect({ around: [quick] }), request()));
    expect(asked).toBe(2);
  });

  it("wait until the time that the server asks for, up to the limit", async () => {
    const soon = new Date(Date.now() + 1_500).toUTCString();
    replies = [answers(503, "", { "retry-after": soon }), answers(200, "3")];
    const startedAt = Date.now();
    expect(await send(connect({ around: [quick] }), request())).toBe(3);
    expect(Date.now() - startedAt).toBeGreaterThan(300);
    replies = [answers(503, "", { "retry-after": "3600" })];
    expect(await failureOf(send(connect({ around: [quick] }), request()))).toMatchObject({ httpStatus: 503 });
    expect(asked).toBe(3);
  });

  it("end at once with the app's signal or the timeout, also while waiting", async () => {
    replies = [answers(503, "", { "retry-after": "10" })];
    const around = [retrying()];
    const controller = new AbortController();
    setTimeout(() => {
      controller.abort();
    }, 60);
    expect(await failureOf(send(connect({ around }), request(), { signal: controller.signal }))).toMatchObject({
      status: "aborted",
    });
    expect(await failureOf(send(connect({ around, timeoutMs: 60 }), request()))).toMatchObject({ status: "timed-out" });
  });
});

describe("renewed credentials", () => {
  const guarded =
    (good: string): Reply =>
    (response, { headers }) => {
      answers(headers.authorization === `Bearer ${good}` ? 200 : 401, "{}")(response, {} as never, {} as never);
    };

  it("are requested once, and once more after a 401, however many calls wait", async () => {
    replies = [guarded("second")];
    const tokens = ["first", "second"];
    const get = vi.fn(
      (_rejected?: string) => new Promise<string>((resolve) => setTimeout(resolve, 5, tokens.shift() ?? "")),
    );
    const token = renewable(get);
    const calls = Array.from({ length: 20 }, () => send(connect({}, { token }), request({ auth: [["token"]] })));
    expect(await Promise.all(calls)).toEqual(Array.from({ length: 20 }, () => ({})));
    expect(get.mock.calls).toEqual([[], ["first"]]);
    expect(asked).toBe(40);
  });

  it("fail with the 401 if the new one is rejected too, or equals the old one", async () => {
    replies = [guarded("never")];
    let number = 0;
    const changing = renewable(() => `token ${String(++number)}`);
    const declared = request({ auth: [["token"]], failures: { 401: "json" } });
    expect(await failureOf(send(connect({}, { token: changing }), declared))).toMatchObject({ status: 401 });
    expect(asked).toBe(2);
    const fixed = renewable(() => "same");
    expect(await failureOf(send(connect({}, { token: fixed }), declared))).toMatchObject({ status: 401 });
    expect(asked).toBe(3);
  });

  it("are requested again after a failed renewal, and several schemes are renewed together", async () => {
    let isDown = true;
    const token = renewable(() => (isDown ? Promise.reject(new Error("down")) : Promise.resolve("good")));
    await expect(send(connect({}, { token }), request({ auth: [["token"]] }))).rejects.toThrow("down");
    isDown = false;
    replies = [guarded("good")];
    const get = vi.fn(() => "k");
    await send(connect({}, { token, key: renewable(get) }), request({ auth: [["token", "key"]] }));
    expect(get).toHaveBeenCalledTimes(1);
  });

  it("do not send a stream twice", async () => {
    replies = [answers(401, "")];
    const body = bytesBody(new Blob(["once"]).stream(), "image/png");
    const once = request({ method: "PUT", body, auth: [["token"]] });
    expect(await failureOf(send(connect({}, { token: renewable(() => String(asked)) }), once))).toMatchObject({
      httpStatus: 401,
    });
    expect(asked).toBe(1);
  });
});

describe("layers and hooks", () => {
  it("wrap the request in their order, may change it, and see the response", async () => {
    const seen: string[] = [];
    const around = [
      eachRequest(({ headers, call }) => {
        seen.push(`asks ${call}`);
        headers.set("x-trace", "7");
      }),
      eachAnswer(async (response, { headers }) => {
        seen.push(`${String(response.status)} ${headers.get("x-trace") ?? ""} ${await response.clone().text()}`);
      }),
    ];
    expect(await send(connect({ around }), request())).toEqual({ id: "N-07" });
    expect(seen).toEqual(["asks api.getBerth", '200 7 {"id":"N-07"}']);
  });

  it("see every failure before it is thrown, also of streams", async () => {
    const told: unknown[] = [];
    const onFailure = ({ call, message }: { call: string; message: string }): unknown => told.push(call, message);
    replies = [answers(409, '{"title":"Taken","detail":"N-07 is taken"}')];
    await failureOf(send(connect({ onFailure }), request({ failures: { 409: "json" } })));
    await failureOf(receive(connect({ onFailure }), request({ answers: { 200: "lines" } })).next());
    expect(told).toEqual([
      "api.getBerth",
      "api.getBerth: the server responded with 409: N-07 is taken",
      "api.getBerth",
      "api.getBerth: the server responded with 409, which the contract does not declare: N-07 is taken",
    ]);
  });

  it("include the app's own JSON reader and writer", async () => {
    let sent = "";
    replies = [answers(200, "one")];
    const json = { parse: (text: string) => ({ text }), stringify: (value: unknown) => `<${String(value)}>` };
    const around = [eachRequest(({ body }) => void (sent = typeof body === "string" ? body : ""))];
    expect(await send(connect({ json, around }), request({ method: "POST", body: jsonBody(7) }))).toEqual({
      text: "one",
    });
    expect(sent).toBe("<7>");
  });
});

describe("problem details (RFC 9457)", () => {
  const problem = { "content-type": "application/problem+json; charset=utf-8" };
  const body = '{"type":"https://ostrel.example/full","title":"Full","status":409,"detail":7,"berth":"N-07"}';

  it("are read from declared and undeclared failures", async () => {
    replies = [answers(409, body, problem)];
    for (const failures of [{ 409: "json" as const }, {}]) {
      const failed = await failureOf(send(connect(), request({ failures })));
      expect(problemOf(failed)).toEqual({
        type: "https://ostrel.example/full",
        title: "Full",
        status: 409,
        berth: "N-07",
      });
    }
  });

  it("are absent if a failure contains none", async () => {
    replies = [answers(409, body)];
    expect(problemOf(await failureOf(send(connect(), request())))).toBeUndefined();
    replies = [answers(409, "[1", problem)];
    expect(problemOf(await failureOf(send(connect(), request())))).toBeUndefined();
    expect(problemOf(new Error("other"))).toBeUndefined();
    replies = [answers(409, "{}", problem)];
    expect(problemOf(await failureOf(send(connect(), request())))).toEqual({ type: "about:blank" });
  });
});

describe("errors of servers and networks", () => {
  const unhandled: unknown[] = [];
  const note = (reason: unknown): unknown => unhandled.push(reason);
  beforeAll(() => void process.on("unhandledRejection", note));
  afterAll(() => {
    process.off("unhandledRejection", note);
    expect(unhandled).toEqual([]);
  });

  const faults: [string, Reply, Partial<RestRequest<unknown>>, Record<string, unknown>][] = [
    ["slow to answer", () => undefined, {}, { status: "timed-out" }],
    [
      "slow in the middle of the body",
      (response) => void response.writeHead(200, { "content-type": "application/json" }).write('{"id":'),
      {},
      { status: "timed-out" },
    ],
    ["cut before the answer", (_response, _request, socket) => socket.destroy(), {}, { status: "unreachable" }],
    [
      "cut in the middle of the body",
      (response, _request, socket) => {
        response.writeHead(200, { "content-length": "1000" });
        response.write("{", () => socket.destroy());
      },
      {},
      { status: "unreachable" },
    ],
    [
      "cut bytes",
      (response, _request, socket) => {
        response.writeHead(200, { "content-length": "1000" });
        response.write("{", () => socket.destroy());
      },
      { answers: { 200: "bytes" } },
      { status: "unreachable" },
    ],
    [
      "no HTTP at all",
      (_response, _request, socket) => void socket.end("SSH-2.0\r\n\r\n"),
      {},
      { status: "unreachable" },
    ],
    ["half a JSON text", answers(200, '{"id":'), {}, { status: "malformed", body: '{"id":', httpStatus: 200 }],
    ["HTML instead of JSON", answers(200, "<html>", { "content-type": "text/html" }), {}, { status: "malformed" }],
    [
      "HTML as a declared failure",
      answers(404, "<html>"),
      { failures: { 404: "json" } },
      { status: 404, httpStatus: 404 },
    ],
    ["nothing where JSON is declared", answers(200, ""), {}, { status: "malformed", body: "" }],
    [
      "a redirect without a target",
      (response) => response.writeHead(302).end(),
      {},
      { status: "unexpected", httpStatus: 302 },
    ],
    [
      "a redirect in a circle",
      (response) => response.writeHead(302, { location: "/berths/N-07" }).end(),
      {},
      { status: "unreachable" },
    ],
    [
      "429",
      answers(429, "slow down", { "content-type": "text/plain" }),
      {},
      { status: "unexpected", httpStatus: 429, body: "slow down" },
    ],
    ["503", answers(503, ""), { failures: { "5XX": "text" } }, { status: "5XX", httpStatus: 503 }],
  ];
  it.each(faults)("%s", async (_what, reply, more, expected) => {
    replies = [reply];
    expect(await failureOf(send(connect({ timeoutMs: 400 }), request(more)))).toMatchObject(expected);
  });

  it.each([
    ["a credential", { auth: { token: "tok\r\nsecret" } }, {}, "the credential `token` is not valid in a header"],
    ["a credential beyond Latin-1", { auth: { token: "tok-日本-secret" } }, {}, "the credential `token`"],
    [
      "a header of the connection",
      { headers: { "x-key": "a\nsecret" } },
      {},
      "the value of the header `x-key` is not valid",
    ],
    ["a header of the call", {}, { headers: { "x-key": "a\nsecret" } }, "the value of the header `x-key` is not valid"],
  ])("%s with a line ending is a failure that does not show it", async (_what, settings, options, message) => {
    const { auth = {}, ...more } = settings as { auth?: Record<string, string>; headers?: Record<string, string> };
    const scheme = (credential: string, { headers }: Credentials): void => {
      headers.set("authorization", `Bearer ${credential}`);
    };
    const api = connection("api", "https://ostrel.example", more, auth, { token: scheme });
    const failed = await failureOf(send(api, request({ auth: [["token"]] }), options));
    expect(failed).toMatchObject({ status: "unreachable", call: "api.getBerth" });
    expect(String(failed["message"])).toContain(message);
    expect(inspect(failed, { depth: 9 })).not.toContain("secret");
  });

  it("a big integer that JSON cannot express is a failure", async () => {
    const failed = await failureOf(send(connect(), request({ method: "POST", body: { json: { big: 1n } } })));
    expect(failed).toMatchObject({ status: "unreachable", message: expect.stringContaining("as JSON") as string });
  });

  it("a redirect to another path is followed", async () => {
    replies = [(response) => response.writeHead(307, { location: "/moved" }).end(), answers(200, '"there"')];
    expect(await send(connect(), request())).toBe("there");
  });

  it("a response has 20 MB", async () => {
    replies = [answers(200, JSON.stringify("x".repeat(20_000_000)))];
    expect(await send(connect(), request())).toHaveLength(20_000_000);
  });

  it("a stream is slow, cut off, or ends within an item", async () => {
    const all = async (idleMs = 5_000): Promise<unknown[]> => {
      const items: unknown[] = [];
      for await (const item of receive(connect(), request({ answers: { 200: "lines" } }), { idleMs })) items.push(item);
      return items;
    };
    replies = [(response) => void response.write('{"a":1}\n')];
    expect(await failureOf(all(300))).toMatchObject({ status: "timed-out" });
    replies = [
      (response, _request, socket) => {
        response.write('{"a":1}\n', () => setTimeout(() => socket.destroy(), 20));
      },
    ];
    expect(await failureOf(all())).toMatchObject({ status: "unreachable" });
    replies = [answers(200, '{"a":1}\n{"a":')];
    expect(await failureOf(all())).toMatchObject({ status: "malformed", body: '{"a":' });
  });

  it("functions of the app fail, and nothing keeps running", async () => {
    const failing = { around: [eachAnswer(() => Promise.reject(new Error("mine")))], timeoutMs: 50 };
    const failed = await failureOf(send(connect(failing), request()));
    expect(failed).toMatchObject({ status: "unreachable", cause: { message: "mine" } });
    await expect(
      send(connect(), request(), {
        onAnswer: () => {
          throw new Error("mine");
        },
      }),
    ).rejects.toThrow("mine");
    await new Promise((resolve) => setTimeout(resolve, 80));
  });
});
