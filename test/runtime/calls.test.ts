import { createServer, type IncomingMessage, type ServerResponse } from "node:http";
import type { AddressInfo } from "node:net";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { basic, bearer, keyInCookie, keyInHeader, keyInQuery } from "../../runtimes/typescript/wire/auth.js";
import { bytesBody, jsonBody, textBody } from "../../runtimes/typescript/wire/bodies.js";
import { connection, type ConnectionOptions } from "../../runtimes/typescript/wire/connection.js";
import { cookies } from "../../runtimes/typescript/wire/cookies.js";
import { isFailure } from "../../runtimes/typescript/wire/failure.js";
import { multipart, urlencoded } from "../../runtimes/typescript/wire/forms.js";
import { execute, type GraphqlOperation } from "../../runtimes/typescript/wire/graphql.js";
import { ownServer } from "../../runtimes/typescript/wire/servers.js";
import { send, type RestRequest } from "../../runtimes/typescript/wire/send.js";
import { itemsBody, receive } from "../../runtimes/typescript/wire/streams.js";
import { subscribe } from "../../runtimes/typescript/wire/subscribe.js";
import { failureOf, request } from "../support/wireRequests.js";

/** The requests that the recording server received, and its next responses. */
let seen: { method: string | undefined; url: string | undefined; headers: IncomingMessage["headers"]; body: string }[] =
  [];
let reply: (response: ServerResponse) => void;
let address = "";
const server = createServer((request, response) => {
  let body = "";
  request.setEncoding("utf8").on("data", (part: string) => (body += part));
  request.on("end", () => {
    seen.push({ method: request.method, url: request.url, headers: request.headers, body });
    reply(response);
  });
});
const answer = (status: number, body: string, type = "application/json") => {
  reply = (response) => response.writeHead(status, { "content-type": type }).end(body);
};

beforeAll(async () => {
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  address = `http://127.0.0.1:${String((server.address() as AddressInfo).port)}`;
});
afterAll(() => {
  server.closeAllConnections();
  server.close();
});
beforeEach(() => {
  seen = [];
  answer(200, '{"id":"N-07"}');
});

const connect = (options: ConnectionOptions = {}, auth = {}, schemes = {}) =>
  connection("api", `${address}/base/`, options, auth, schemes);

describe("a REST call", () => {
  it("sends method, path, query, headers and body exactly", async () => {
    const value = await send(
      connect({ headers: () => Promise.resolve({ "x-app": "board" }) }),
      request({
        method: "POST",
        query: ["a=1", "", "b=2"],
        headers: { "X-One": "1", "X-Absent": undefined },
        body: jsonBody({ a: null }),
        accept: "application/json",
      }),
      { headers: { "x-app": "other" } },
    );
    expect(value).toEqual({ id: "N-07" });
    expect(seen).toMatchObject([
      {
        method: "POST",
        url: "/base/berths/N-07?a=1&b=2",
        body: '{"a":null}',
        headers: { "x-one": "1", "x-app": "other", accept: "application/json", "content-type": "application/json" },
      },
    ]);
    expect(seen[0]?.headers["x-absent"]).toBeUndefined();
  });

  it("adds its query to one in the path", async () => {
    await send(connect(), request({ path: "/berths?kind=all", query: ["a=1"] }));
    expect(seen[0]?.url).toBe("/base/berths?kind=all&a=1");
  });

  it("calls the base URL for each request if it is a function", async () => {
    const bases = [`${address}/one`, `${address}/two`];
    const harbour = connect({ baseUrl: () => Promise.resolve(bases.shift() ?? "") });
    await send(harbour, request());
    await send(harbour, request());
    expect(seen.map(({ url }) => url)).toEqual(["/one/berths/N-07", "/two/berths/N-07"]);
  });

  it.each([
    [[["token"]], { authorization: "Bearer t" }, "/base/berths/N-07"],
    [[["missing"], ["key"]], { "x-key": "k" }, "/base/berths/N-07"],
    [[["query", "key"]], { "x-key": "k" }, "/base/berths/N-07?api%20key=a%26b"],
    [[["login"]], { authorization: `Basic ${Buffer.from("ü:x").toString("base64")}` }, "/base/berths/N-07"],
    [[["biscuit"]], { cookie: "sid=a%20b" }, "/base/berths/N-07"],
  ])("uses the first alternative with a credential: %j", async (auth, headers, url) => {
    const suppliers = { token: () => "t", key: "k", query: () => Promise.resolve("a&b"), login: "ü:x", biscuit: "a b" };
    const schemes = {
      token: bearer,
      key: keyInHeader("X-Key"),
      query: keyInQuery("api key"),
      login: basic,
      biscuit: keyInCookie("sid"),
    };
    await send(connect({}, suppliers, schemes), request({ auth }));
    expect(seen[0]).toMatchObject({ headers, url });
  });

  it.each([
    ["json", '{"a":1}', { a: 1 }],
    ["text", "plain", "plain"],
    ["none", "ignored", undefined],
  ] as const)("reads a response as %s", async (readAs, body, value) => {
    answer(200, body, "text/plain");
    expect(await send(connect(), request({ answers: { 200: readAs } }))).toEqual(value);
  });

  it("reads bytes, and an undeclared success like the only declared one", async () => {
    answer(200, "abc", "application/pdf");
    expect(await ((await send(connect(), request({ answers: { 200: "bytes" } }))) as Blob).text()).toBe("abc");
    answer(202, '{"a":1}');
    expect(await send(connect(), request())).toEqual({ a: 1 });
    reply = (response) => response.writeHead(204).end();
    expect(await send(connect(), request())).toBeUndefined();
  });

  it.each([
    [urlencoded({ a: "x y", b: [1, 2], c: undefined }), "application/x-www-form-urlencoded", "a=x+y&b=1&b=2"],
    [textBody("hello", "text/x-markdown"), "text/x-markdown", "hello"],
    [bytesBody(new Blob(["raw"]), "application/pdf"), "application/pdf", "raw"],
    [jsonBody(null, "application/merge-patch+json"), "application/merge-patch+json", "null"],
  ])("sends a body as %j", async (body, type, text) => {
    await send(connect(), request({ method: "POST", body }));
    expect([seen[0]?.headers["content-type"], seen[0]?.body]).toEqual([type, text]);
  });

  it("sends multipart parts: files as they are, objects as JSON, lists repeated, nothing for absent values", async () => {
    await send(
      connect(),
      request({
        method: "POST",
        body: multipart({ file: new Blob(["data"]), record: { a: 1 }, tag: ["x", "y"], absent: undefined }),
      }),
    );
    const body = seen[0]?.body ?? "";
    expect(seen[0]?.headers["content-type"]).toMatch(/^multipart\/form-data; boundary=/);
    expect([...body.matchAll(/; name="(\w+)"/g)].map(([, name]) => name)).toEqual(["file", "record", "tag", "tag"]);
    expect(body).toContain('{"a":1}');
  });

  it("sends no body if it has none", () => {
    expect([
      jsonBody(undefined),
      textBody(undefined, "x"),
      bytesBody(undefined, "x"),
      urlencoded(undefined),
      multipart(undefined),
    ]).toEqual([undefined, undefined, undefined, undefined, undefined]);
  });
});

describe("a failure", () => {
  it("with a declared status has the typed body, the status and the headers", async () => {
    answer(404, '{"title":"none"}');
    const failure = await failureOf(send(connect(), request({ failures: { 404: "json" } })));
    expect(failure).toMatchObject({ call: "api.getBerth", status: 404, httpStatus: 404, body: { title: "none" } });
    expect((failure["headers"] as Headers).get("content-type")).toBe("application/json");
    expect([isFailure(failure, "api.getBerth"), isFailure(failure, "api.other"), isFailure(new Error("x"))]).toEqual([
      true,
      false,
      false,
    ]);
  });

  it.each([
    [{ "4XX": "json" }, "4XX"],
    [{ default: "json" }, "default"],
    [{ 404: "json", default: "json" }, "default"],
    [{}, "unexpected"],
  ] as const)("with %j declared, 422 is %s", async (failures, status) => {
    answer(422, "{}");
    expect(await failureOf(send(connect(), request({ failures })))).toMatchObject({ status, httpStatus: 422 });
  });

  it("distinguishes malformed, unreachable, timed-out and aborted requests", async () => {
    answer(200, "<html>");
    expect(await failureOf(send(connect(), request()))).toMatchObject({ status: "malformed", body: "<html>" });
    expect(await failureOf(send(connect({ baseUrl: "http://127.0.0.1:1" }), request()))).toMatchObject({
      status: "unreachable",
    });
    reply = () => undefined;
    expect(await failureOf(send(connect({ timeoutMs: 30 }), request()))).toMatchObject({ status: "timed-out" });
    expect(await failureOf(send(connect(), request(), { signal: AbortSignal.timeout(30) }))).toMatchObject({
      status: "aborted",
    });
    expect(await failureOf(send(connect(), request(), { signal: AbortSignal.abort() }))).toMatchObject({
      status: "aborted",
    });
  });

  it("is the result of a body that is cut off, which does not hang", async () => {
    reply = (response) => {
      response.writeHead(200, { "content-length": "100" });
      response.write("{");
      setTimeout(() => response.destroy(), 20);
    };
    expect(await failureOf(send(connect(), request()))).toMatchObject({ status: "unreachable" });
  });
});

describe("a GraphQL operation", () => {
  const operation: GraphqlOperation<{ boat: string }, { id: string }> = {
    kind: "query",
    name: "Boat",
    text: "query Boat { boat }",
  };

  it("is sent as JSON to the endpoint and returns its data", async () => {
    answer(200, '{"data":{"boat":"x"}}');
    expect(await execute(connect(), operation, { id: "1" })).toEqual({ boat: "x" });
    expect(JSON.parse(seen[0]?.body ?? "")).toEqual({
      query: operation.text,
      operationName: "Boat",
      variables: { id: "1" },
    });
    expect(seen[0]?.url).toBe("/base/");
  });

  it("with errors fails, with the errors and the partial data, whatever the status", async () => {
    answer(400, '{"errors":[{"message":"no","path":["boat"]}],"data":{"boat":"half"}}');
    expect(await failureOf(execute(connect(), operation, { id: "1" }))).toMatchObject({
      call: "api.boat",
      status: "errors",
      errors: [{ message: "no", path: ["boat"] }],
      data: { boat: "half" },
    });
  });

  it.each([
    [200, '{"data":null}', { status: "errors", data: null }],
    [502, "<html>", { status: "unexpected", httpStatus: 502 }],
    [200, "<html>", { status: "malformed" }],
  ])("%s %s has its own failure", async (status, body, expected) => {
    answer(status, body);
    expect(await failureOf(execute(connect(), operation, { id: "1" }))).toMatchObject(expected);
  });
});

describe("a subscription", () => {
  const operation: GraphqlOperation<{ n: number }, object> = {
    kind: "subscription",
    name: "Count",
    text: "subscription Count { n }",
  };
  const stream = (text: string, end = true) => {
    reply = (response) => {
      response.writeHead(200, { "content-type": "text/event-stream" });
      // Cut in the middle of an event, to test that parts are joined.
      response.write(text.slice(0, 30));
      setTimeout(() => {
        response.write(text.slice(30));
        if (end) response.end();
      }, 10);
    };
  };
  const collect = async () => {
    const found: unknown[] = [];
    for await (const value of subscribe(connect(), operation, {})) found.push(value);
    return found;
  };

  it("returns each event until it is complete", async () => {
    stream(
      'event: next\r\ndata: {"data":{"n":1}}\r\n\r\n: a comment\n\nevent: next\ndata: {"data":{"n":2}}\n\nevent: complete\ndata: \n\nevent: next\ndata: {}\n\n',
      false,
    );
    expect(await collect()).toEqual([{ n: 1 }, { n: 2 }]);
  });

  it("ends with the stream, and when the consumer stops", async () => {
    stream('event: next\ndata: {"data":{"n":1}}\n\n');
    expect(await collect()).toEqual([{ n: 1 }]);
    stream('event: next\ndata: {"data":{"n":1}}\n\n'.repeat(5), false);
    for await (const value of subscribe(connect(), operation, {})) {
      expect(value).toEqual({ n: 1 });
      break;
    }
  });

  it("fails on errors, on invalid JSON, and without a stream", async () => {
    stream('event: next\ndata: {"errors":[{"message":"no"}]}\n\n');
    expect(await failureOf(collect())).toMatchObject({ status: "errors" });
    stream("event: next\ndata: <html>\n\n          ");
    expect(await failureOf(collect())).toMatchObject({ status: "malformed" });
    answer(500, "no");
    expect(await failureOf(collect())).toMatchObject({ status: "unexpected", httpStatus: 500 });
  });
});

describe("responses item by item", () => {
  const collect = async (request: Partial<RestRequest<unknown>>): Promise<unknown[]> => {
    const found: unknown[] = [];
    for await (const item of receive(connect(), {
      call: "api.notices",
      method: "GET",
      path: "/n",
      answers: {},
      ...request,
    }))
      found.push(item);
    return found;
  };
  const inPieces = (parts: string[], type: string) => {
    reply = (response) => {
      response.writeHead(200, { "content-type": type });
      const next = (): void => {
        const part = parts.shift();
        if (part === undefined) response.end();
        else response.write(part, () => setTimeout(next, 5));
      };
      next();
    };
  };

  it("lines, sequences and events, however the stream is split into chunks", async () => {
    inPieces(['{"a":', '1}\n\n{"a"', ":2}\r\n", '{"a":3}'], "application/x-ndjson");
    expect(await collect({ answers: { 200: "lines" } })).toEqual([{ a: 1 }, { a: 2 }, { a: 3 }]);
    inPieces(['\u001e{"a":1}\n\u001e', '{"a":2}\n'], "application/json-seq");
    expect(await collect({ answers: { 200: "sequence" } })).toEqual([{ a: 1 }, { a: 2 }]);
    inPieces([": hello\n\ndata: 1\r", "\n\r\nevent: tide\nid: 7\ndata: [2,\ndata: 3]\n\n"], "text/event-stream");
    expect(await collect({ answers: { 200: "events" } })).toEqual([1, [2, 3]]);
    inPieces(["event: tide\nid: 7\ndata: high\n\n"], "text/event-stream");
    expect(await collect({ answers: { 200: "eventRecords" } })).toEqual([{ event: "tide", id: "7", data: "high" }]);
  });

  it("end with the consumer, and fail with their own failure", async () => {
    inPieces(
      Array.from({ length: 50 }, () => "data: 1\n\n"),
      "text/event-stream",
    );
    for await (const item of receive(connect(), { ...request(), answers: { 200: "events" } })) {
      expect(item).toBe(1);
      break;
    }
    answer(200, "data: {broken\n\n", "text/event-stream");
    expect(await failureOf(collect({ answers: { 200: "events" } }))).toMatchObject({ status: "malformed" });
    answer(503, "busy", "text/plain");
    expect(await failureOf(collect({ answers: { 200: "events" }, failures: { 503: "text" } }))).toMatchObject({
      status: 503,
      body: "busy",
    });
  });

  it("are also sent as lines", () => {
    expect(itemsBody([{ a: 1 }, 2], "lines", "application/jsonl")).toEqual({
      data: '{"a":1}\n2\n',
      type: "application/jsonl",
    });
  });
});

describe("options and details of a call", () => {
  it("cookies, a server of its own, and the response's status and headers", async () => {
    const seenAnswers: unknown[] = [];
    await send(connect(), request({ headers: { cookie: cookies(["sid=1", "", undefined, "b=2"]) } }), {
      onAnswer: ({ status, headers }) => seenAnswers.push(status, headers.get("content-type")),
    });
    expect(seen[0]?.headers.cookie).toBe("sid=1; b=2");
    expect(seenAnswers).toEqual([200, "application/json"]);
    await send(connect(), request({ base: ownServer(connect(), "/v2") }));
    const chosen = { ...connect(), servers: { "https://files.test": `${address}/files` } };
    await send(chosen, request({ base: ownServer(chosen, "https://files.test") }));
    expect(seen.slice(1).map((each) => each.url)).toEqual(["/v2/berths/N-07", "/files/berths/N-07"]);
  });

  it("fail with the header's name if it cannot have a value", async () => {
    for (const value of ["名前", "a\r\nx-other: b"])
      expect(await failureOf(send(connect(), request({ headers: { "x-name": value } })))).toMatchObject({
        status: "unreachable",
        message: "api.getBerth: an argument is not valid in a header",
      });
    expect(seen).toEqual([]);
  });

  it("include conversion of responses and failures by status", async () => {
    const conversions = { 200: { decode: () => "converted" }, 409: { decode: () => "refused" } };
    expect(await send(connect(), request({ conversions }))).toBe("converted");
    answer(409, "{}");
    expect(await failureOf(send(connect(), request({ conversions, failures: { 409: "json" } })))).toMatchObject({
      body: "refused",
    });
  });
});
