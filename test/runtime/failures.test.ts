import { createServer, type IncomingMessage, type ServerResponse } from "node:http";
import type { AddressInfo } from "node:net";
import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from "vitest";
import { bytesBody, jsonBody } from "../../runtimes/typescript/wire/bodies.js";
import { connection, type Connection, type ConnectionOptions } from "../../runtimes/typescript/wire/connection.js";
import { execute, type GraphqlConnection } from "../../runtimes/typescript/wire/graphql.js";
import { retrying } from "../../runtimes/typescript/wire/layers.js";
import { uploadProgress, type UploadProgress } from "../../runtimes/typescript/wire/progress.js";
import { send } from "../../runtimes/typescript/wire/send.js";
import { failureOf, request } from "../support/wireRequests.js";

let reply: (response: ServerResponse) => void;
let seen: { method: string | undefined; headers: IncomingMessage["headers"]; body: string }[] = [];
let address = "";
const server = createServer((asked, response) => {
  let body = "";
  asked.setEncoding("utf8").on("data", (part: string) => (body += part));
  asked.on("end", () => {
    seen.push({ method: asked.method, headers: asked.headers, body });
    reply(response);
  });
});
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
});
const answering = (status: number, type: string, body: string): void => {
  reply = (response) => response.writeHead(status, { "content-type": type }).end(body);
};
const connect = (options: ConnectionOptions = {}): Connection => connection("api", address, options);
const page =
  "<!doctype html><head><title>Gone</title><style>a{}</style></head><body><h1>Not here</h1>\n<script>x</script></body>";

describe("a failure describes", () => {
  const declared = request({ failures: { 404: "json", 409: "json" } });

  it.each<[string, number, string, string, object]>([
    [
      "what a page is that came instead of JSON, and stays the declared status",
      404,
      "text/html; charset=utf-8",
      page,
      {
        status: 404,
        httpStatus: 404,
        body: page,
        message: 'api.getBerth: the server responded with 404: it is text/html, and begins with "Gone Not here"',
      },
    ],
    [
      "that nothing came instead of JSON",
      409,
      "application/json",
      "",
      { status: 409, message: "api.getBerth: the server responded with 409: it is application/json, and empty" },
    ],
    [
      "what a page is that came with a success",
      200,
      "text/html",
      page,
      {
        status: "malformed",
        httpStatus: 200,
        body: page,
        message:
          'api.getBerth: the response (200) cannot be read as JSON: it is text/html, and begins with "Gone Not here"',
      },
    ],
    [
      "what an undeclared status says of itself",
      403,
      "application/problem+json",
      '{"title":"No","detail":"Wrong quay"}',
      {
        status: "unexpected",
        httpStatus: 403,
        message: "api.getBerth: the server responded with 403, which the contract does not declare: Wrong quay",
      },
    ],
    [
      "its title where it has no more",
      403,
      "application/problem+json",
      '{"title":"No"}',
      { message: "api.getBerth: the server responded with 403, which the contract does not declare: No" },
    ],
    [
      "what an undeclared page is",
      502,
      "text/html",
      "<h1>Bad\u001b[31m Gateway</h1>",
      {
        status: "unexpected",
        httpStatus: 502,
        message:
          'api.getBerth: the server responded with 502, which the contract does not declare: it is text/html, and begins with "Bad [31m Gateway"',
      },
    ],
  ])("%s", async (_name, status, type, body, expected) => {
    answering(status, type, body);
    expect(await failureOf(send(connect(), declared))).toMatchObject(expected);
  });

  it("an unexpected response, in GraphQL too", async () => {
    answering(502, "text/html", page);
    const operation = { kind: "query", name: "Boats", text: "query Boats { n }" } as const;
    const made: GraphqlConnection = connect();
    expect(await failureOf(execute(made, operation, {}))).toMatchObject({
      status: "unexpected",
      message: 'api.boats: the server responded with 502: it is text/html, and begins with "Gone Not here"',
    });
  });

  it("a response that was cut off, and not an unreachable server", async () => {
    reply = (response) => {
      response.writeHead(200, { "content-type": "application/json", "content-length": 100 }).write("{");
      setTimeout(() => response.destroy(), 20);
    };
    expect(await failureOf(send(connect(), request()))).toMatchObject({
      status: "unreachable",
      message: `api.getBerth: the response to GET ${address}/berths/N-07 was cut off`,
    });
  });

  it("why the app cancelled the call, in the app's words", async () => {
    reply = () => undefined;
    const controller = new AbortController();
    const reason = new Error("the page was left");
    setTimeout(() => {
      controller.abort(reason);
    }, 20);
    const failed = await failureOf(send(connect(), request(), { signal: controller.signal }));
    expect([failed["status"], failed["cause"]]).toEqual(["aborted", reason]);
    expect((await failureOf(send(connect(), request(), { signal: AbortSignal.abort(reason) })))["cause"]).toBe(reason);
  });

  it("the start of a large page, in a short time", async () => {
    answering(200, "text/html", "<".repeat(3_000_000));
    const startedAt = performance.now();
    await failureOf(send(connect(), request()));
    expect(performance.now() - startedAt).toBeLessThan(5_000);
  });
});

describe("a request", () => {
  it.each<[string, Blob | Uint8Array | ArrayBuffer | ReadableStream<Uint8Array>]>([
    ["a Blob", new Blob(["bytes"])],
    ["an array of bytes", new TextEncoder().encode("bytes")],
    ["a part of one", new TextEncoder().encode("xbytesx").subarray(1, 6)],
    ["a buffer", new TextEncoder().encode("bytes").buffer],
    ["a stream", new Blob(["bytes"]).stream()],
  ])("sends bytes as %s", async (_name, data) => {
    answering(200, "application/json", "1");
    await send(connect(), request({ method: "POST", body: bytesBody(data, "image/png") }));
    expect(seen).toMatchObject([{ body: "bytes", headers: { "content-type": "image/png" } }]);
  });

  it("that is idempotent is repeated only if the app says so, and a stream never", async () => {
    answering(503, "text/plain", "");
    const count = async (method: string, idempotent: boolean, body = jsonBody({})): Promise<number> => {
      seen = [];
      const around = [retrying({ times: 2, pauseMs: 1, idempotent })];
      await failureOf(send(connect({ around }), request({ method, body })));
      return seen.length;
    };
    expect([
      await count("PUT", false),
      await count("PUT", true),
      await count("DELETE", true),
      await count("POST", true),
    ]).toEqual([1, 3, 3, 1]);
    expect(await count("PUT", true, bytesBody(new Blob(["a"]).stream(), "text/plain"))).toBe(1);
  });

  it("has the connection's options for fetch", async () => {
    const inits: unknown[] = [];
    const fetch = ((_url: unknown, init: unknown) => {
      inits.push(init);
      return Promise.resolve(new Response("1"));
    }) as typeof globalThis.fetch;
    const init = { credentials: "include", method: "TRACE", keepalive: true } as const;
    await send(connect({ fetch, init: init }), request());
    expect(inits).toMatchObject([{ credentials: "include", keepalive: true, method: "GET" }]);
  });
});

/** A platform's XMLHttpRequest as far as it is needed, with fetch. */
class TransferByFetch {
  static made: TransferByFetch[] = [];
  readonly upload: { onprogress: ((event: object) => void) | null } = { onprogress: null };
  status = 0;
  statusText = "";
  response: unknown;
  responseType = "";
  withCredentials = false;
  onload: (() => void) | null = null;
  onerror: (() => void) | null = null;
  isAborted = false;
  private readonly headers = new Headers();
  private received = new Headers();
  private asked: [string, string] = ["", ""];

  constructor() {
    TransferByFetch.made.push(this);
  }
  open(method: string, url: string): void {
    this.asked = [method, url];
  }
  setRequestHeader(name: string, value: string): void {
    this.headers.append(name, value);
  }
  getAllResponseHeaders(): string {
    return [...this.received].map(([name, value]) => `${name}: ${value}\r\n`).join("");
  }
  abort(): void {
    this.isAborted = true;
  }
  send(body: NonNullable<RequestInit["body"]>): void {
    this.upload.onprogress?.({ loaded: 1, total: 7, lengthComputable: true });
    this.upload.onprogress?.({ loaded: 7, total: 0, lengthComputable: false });
    fetch(this.asked[1], { method: this.asked[0], headers: this.headers, body }).then(
      async (response) => {
        this.status = response.status;
        this.received = response.headers;
        this.response = await response.arrayBuffer();
        this.onload?.();
      },
      () => this.onerror?.(),
    );
  }
}

describe("upload progress", () => {
  it("is reported with its call; a request without a body uses fetch", async () => {
    vi.stubGlobal("XMLHttpRequest", TransferByFetch);
    try {
      TransferByFetch.made = [];
      answering(200, "application/json", '{"id":1}');
      const told: [UploadProgress, string][] = [];
      const around = [
        uploadProgress((progress, { call }) => {
          told.push([progress, call]);
        }, true),
      ];
      const body = bytesBody(new Blob(["content"]), "image/png");
      expect(await send(connect({ around }), request({ method: "POST", body }))).toEqual({ id: 1 });
      expect(told).toEqual([
        [{ sent: 1, total: 7 }, "api.getBerth"],
        [{ sent: 7, total: undefined }, "api.getBerth"],
      ]);
      expect(seen).toMatchObject([{ method: "POST", body: "content", headers: { "content-type": "image/png" } }]);
      await send(connect({ around }), request());
      expect(TransferByFetch.made.map(({ withCredentials }) => withCredentials)).toEqual([true]);
      answering(404, "application/json", "{}");
      expect(await failureOf(send(connect({ around }), request({ method: "POST", body })))).toMatchObject({
        httpStatus: 404,
      });
      reply = (response) => response.destroy();
      expect(await failureOf(send(connect({ around }), request({ method: "POST", body })))).toMatchObject({
        status: "unreachable",
      });
      reply = () => undefined;
      const failed = failureOf(send(connect({ around, timeoutMs: 30 }), request({ method: "POST", body })));
      expect(await failed).toMatchObject({ status: "timed-out" });
      expect(TransferByFetch.made.at(-1)?.isAborted).toBe(true);
    } finally {
      vi.unstubAllGlobals();
    }
  });
});
