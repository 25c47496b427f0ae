import { createServer, type IncomingMessage } from "node:http";
import type { AddressInfo } from "node:net";
import { afterEach, describe, expect, it } from "vitest";
import { bundled } from "../support/bundled.js";
import { contractWith } from "../support/smallContract.js";
import { restProject } from "../support/temporaryProject.js";

const text = { type: "string" };
const number = { type: "integer" };
const json = (schema: object) => ({ content: { "application/json": { schema } } });
const answers = (schema: object, more: object = {}) => ({ 200: { description: "fine", ...json(schema), ...more } });
const berth = { $ref: "#/components/schemas/Berth" };
const query = (name: string, schema: object) => ({ name, in: "query", schema });
const list = (operationId: string, parameters: object[], schema: object, more: object = {}) => ({
  get: { operationId, tags: ["lists"], parameters, responses: answers(schema, more) },
});

const contract = contractWith(
  {
    Berth: { type: "object", required: ["id"], properties: { id: text } },
    Problem: { type: "object", properties: { title: text, detail: text } },
  },
  {
    "/by-cursor": list("byCursor", [query("after", text), query("size", number)], {
      type: "object",
      required: ["berths"],
      properties: {
        berths: { type: "array", items: berth },
        page: { type: "object", properties: { nextCursor: { type: ["string", "null"] } } },
      },
    }),
    "/by-offset": list("byOffset", [query("offset", number)], { type: "array", items: berth }),
    "/by-number": list("byNumber", [query("page", number)], { type: "array", items: berth }),
    "/by-link": list(
      "byLink",
      [query("page", number), query("odd-name", text)],
      { type: "array", items: berth },
      {
        headers: { Link: { schema: text } },
      },
    ),
    "/said": list("saidPages", [query("from", text)], {
      type: "object",
      properties: { a: { type: "array", items: text }, b: { type: "array", items: berth }, end: text },
    }),
    "/not-paged": list("notPaged", [query("page", number)], { type: "array", items: berth }),
    "/report": {
      get: {
        operationId: "report",
        tags: ["choices"],
        responses: {
          200: {
            description: "fine",
            content: {
              "application/json": { schema: berth },
              "text/json": { schema: berth },
              "text/csv": { schema: text },
              "application/pdf": {},
              "application/xml": { schema: berth },
            },
          },
          409: { description: "taken", ...json({ $ref: "#/components/schemas/Problem" }) },
        },
      },
    },
    "/photo": {
      put: {
        operationId: "putPhoto",
        tags: ["choices"],
        parameters: [query("bodyType", text), { name: "sid", in: "cookie", schema: text }],
        requestBody: {
          required: true,
          content: {
            "application/json": { schema: { type: "object", required: ["url"], properties: { url: text } } },
            "image/png": { schema: { type: "string", format: "binary" } },
            "multipart/form-data": {
              schema: { type: "object", properties: { file: { type: "string", format: "binary" }, note: text } },
            },
          },
        },
        responses: { 204: { description: "done" } },
      },
    },
    "/chat": {
      post: {
        operationId: "chat",
        tags: ["choices"],
        requestBody: { required: true, ...json({ type: "object", properties: { stream: { type: "boolean" } } }) },
        responses: {
          200: {
            description: "fine",
            content: { "application/json": { schema: berth }, "text/event-stream": { schema: berth } },
          },
        },
      },
    },
  },
);

const configuration = (settings: string) => `contracts:
  api:
    from: api.yaml
    pages: { saidPages: { by: cursor, parameter: from, items: /b, next: /end }, notPaged: off }
sdks: { app: { language: typescript, covers: [api], into: src/sdk, settings: ${settings} } }
`;

const use = `import { byCursorItems, byLinkItems, byNumberItems, byOffsetItems, chat, chatStream, connectApi, putPhoto, report, saidPagesItems, type Berth } from "./sdk/api/index.js";
import { apiCalls } from "./sdk/api/grouped.js";

export async function run(baseUrl: string): Promise<unknown> {
  const api = connectApi({ baseUrl });
  const all = async (items: AsyncIterable<Berth>): Promise<string[]> => {
    const ids: string[] = [];
    for await (const { id } of items) ids.push(id);
    return ids;
  };
  const usual: Berth = await report(api);
  const csv: string = await report(api, { answerType: "text/csv" });
  const pdf: Blob = await apiCalls(api).report({ answerType: "application/pdf" });
  await putPhoto(api, { body: { url: "x" }, sid: "s 1" });
  await putPhoto(api, { body: new Blob(["png"]), bodyType: "image/png", bodyTypeQuery: "q" });
  await putPhoto(api, { body: new Blob(["streamed"]).stream(), bodyType: "image/png" });
  await putPhoto(api, { body: { note: "n" }, bodyType: "multipart/form-data" });
  // @ts-expect-error A body goes with its own type only.
  void (() => putPhoto(api, { body: { url: "x" }, bodyType: "image/png" }));
  const whole: Berth = await chat(api, { body: {} });
  return {
    pages: [
      await all(byCursorItems(api)),
      await all(byOffsetItems(api)),
      await all(byNumberItems(api)),
      await all(byLinkItems(api)),
      await all(saidPagesItems(api)),
    ],
    usual, csv, pdf: await pdf.text(), whole,
    streamed: await all(chatStream(api, { body: { stream: true } })),
  };
}
`;

interface Seen {
  readonly line: string;
  readonly type: string | undefined;
  readonly body: string;
  readonly cookie: string | undefined;
}

const servers: (() => void)[] = [];
afterEach(() => {
  for (const close of servers.splice(0)) close();
});

/** A server of the contract with seven berths, three on a page. */
async function harbour(): Promise<{ address: string; seen: Seen[] }> {
  const seen: Seen[] = [];
  const page = (from: number) => [1, 2, 3, 4, 5, 6, 7].slice(from, from + 3).map((id) => ({ id: `N-${String(id)}` }));
  const server = createServer((request: IncomingMessage, response) => {
    const chunks: Buffer[] = [];
    request.on("data", (chunk: Buffer) => chunks.push(chunk));
    request.on("end", () => {
      const url = new URL(request.url ?? "", "http://x");
      const { accept = "", cookie } = request.headers;
      seen.push({
        line: `${request.method ?? ""} ${request.url ?? ""}`,
        type: request.headers["content-type"],
        body: Buffer.concat(chunks).toString(),
        cookie,
      });
      const reply = (value: unknown, headers: Record<string, string> = {}): void => {
        response.writeHead(200, { "content-type": "application/json", ...headers }).end(JSON.stringify(value));
      };
      const asked = (name: string): number => Number(url.searchParams.get(name) ?? 0);
      const number = Math.max(1, asked("page"));
      switch (url.pathname) {
        case "/by-cursor": {
          const from = asked("after");
          reply({ berths: page(from), page: { nextCursor: from + 3 < 7 ? String(from + 3) : null } });
          return;
        }
        case "/by-offset": {
          reply(page(asked("offset")));
          return;
        }
        case "/by-number": {
          reply(page((number - 1) * 3));
          return;
        }
        case "/by-link": {
          reply(
            page((number - 1) * 3),
            number < 3
              ? {
                  link: `<https://elsewhere.test/x?page=1>; rel="prev", </by-link?page=${String(number + 1)}&odd-name=a&undeclared=x>; title="a, b"; rel="last next"`,
                }
              : {},
          );
          return;
        }
        case "/said": {
          const from = asked("from");
          reply({ a: ["x"], b: page(from), ...(from + 3 < 7 ? { end: String(from + 3) } : {}) });
          return;
        }
        case "/chat":
          if (!accept.includes("event-stream")) {
            reply({ id: "whole" });
            return;
          }
          response.writeHead(200, { "content-type": "text/event-stream" });
          response.end('data: {"id":"a"}\n\ndata: {"id":"b"}\n\n');
          return;
        case "/report":
          if (accept === "application/json") {
            reply({ id: "usual" });
            return;
          }
          response.writeHead(200, { "content-type": accept }).end(`as ${accept}`);
          return;
        default:
          response.writeHead(204).end();
      }
    });
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  servers.push(() => {
    server.closeAllConnections();
    server.close();
  });
  return { address: `http://127.0.0.1:${String((server.address() as AddressInfo).port)}`, seen };
}

describe("code that an app no longer writes", () => {
  it("pages, alternative media types, and a stream next to a whole response, against a server", async () => {
    const project = restProject(contract, { "rhema.yaml": configuration("{}"), "src/use.ts": use });
    const { code, out, err } = await project.run(["generate"]);
    expect(code).toBe(0);
    expect(out + err).toContain("4 calls seem to page");
    expect(project.compileAndLint()).toEqual([]);
    expect(project.read("src/sdk/api/calls/lists.ts")).not.toContain("notPagedItems");
    const { run } = await bundled<{ run: (baseUrl: string) => Promise<unknown> }>(project, "src/use.ts");
    const { address, seen } = await harbour();
    const ids = [1, 2, 3, 4, 5, 6, 7].map((id) => `N-${String(id)}`);
    expect(await run(address)).toEqual({
      pages: [ids, ids, ids, ids, ids],
      usual: { id: "usual" },
      csv: "as text/csv",
      pdf: "as application/pdf",
      whole: { id: "whole" },
      streamed: ["a", "b"],
    });
    const photos = seen.filter(({ line }) => line.startsWith("PUT"));
    expect(photos.slice(0, 3)).toEqual([
      { line: "PUT /photo", type: "application/json", body: '{"url":"x"}', cookie: "sid=s%201" },
      { line: "PUT /photo?bodyType=q", type: "image/png", body: "png", cookie: undefined },
      { line: "PUT /photo", type: "image/png", body: "streamed", cookie: undefined },
    ]);
    expect(photos[3]?.type).toContain("multipart/form-data; boundary=");
    expect(seen.map(({ line }) => line).filter((line) => line.includes("by-link"))).toEqual([
      "GET /by-link",
      "GET /by-link?page=2&odd-name=a&undeclared=x",
      "GET /by-link?page=3&odd-name=a&undeclared=x",
    ]);
  });

  it("failures as values, which the compiler requires to be handled", async () => {
    const project = restProject(contract, {
      "rhema.yaml": configuration("{ failures: return }"),
      "src/use.ts": `import { byCursorItems, connectApi, report } from "./sdk/api/index.js";
export async function run(fetch: typeof globalThis.fetch): Promise<unknown[]> {
  const api = connectApi({ baseUrl: "https://ostrel.example", fetch });
  const { ok, answer, failure } = await report(api);
  // @ts-expect-error The answer is there only when the call went well.
  void (() => answer.id);
  const seen: unknown[] = [];
  if (ok) seen.push(answer.id);
  else if (failure.status === 409) seen.push(failure.body.detail, failure.message);
  else seen.push(failure.status);
  for await (const each of byCursorItems(api)) seen.push(each.ok ? each.answer.id : each.failure.status);
  return seen;
}
`,
    });
    expect((await project.run(["generate"])).code).toBe(0);
    expect(project.compileAndLint()).toEqual([]);
    const { run } = await bundled<{ run: (fetch: unknown) => Promise<unknown[]> }>(project, "src/use.ts");
    const taken = () =>
      Promise.resolve(
        new Response('{"detail":"N-07 is taken"}', {
          status: 409,
          headers: { "content-type": "application/problem+json" },
        }),
      );
    expect(await run(taken)).toEqual([
      "N-07 is taken",
      "api.report: the server responded with 409: N-07 is taken",
      "unexpected",
    ]);
    expect(await run(() => Promise.reject(new Error("no route")))).toEqual(["unreachable", "unreachable"]);
    expect(await run(() => Promise.resolve(new Response('{"id":"N-1","berths":[{"id":"N-2"}]}')))).toEqual([
      "N-1",
      "N-2",
    ]);
  });

  it("suggests parameters of many calls as shared, and reports calls whose paging is unknown", async () => {
    const tenant = { name: "X-Tenant", in: "header", required: true, schema: text };
    const operation = (operationId: string) => ({
      get: { operationId, parameters: [tenant], responses: answers(berth) },
    });
    const project = restProject(
      contractWith(
        { Berth: { type: "object" } },
        Object.fromEntries(["a", "b", "c", "d"].map((id) => [`/${id}`, operation(id)])),
      ),
    );
    const { out, err } = await project.run(["generate"]);
    expect(out + err).toContain("4 of 5 operations have the parameter `X-Tenant`");
    expect(out + err).toContain("standing: [X-Tenant]");
    const wrong = project
      .read("rhema.yaml")
      .replace("from: api.yaml", "from: api.yaml\n    standing: [X-Tenant]\n    pages: { aa: off }");
    project.write("rhema.yaml", wrong);
    const again = await project.run(["generate"]);
    expect(again.out + again.err).toContain("no operation with the id `aa`");
    expect(again.out + again.err).not.toContain("operations take");
  });
});
