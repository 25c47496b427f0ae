import { Readable } from "node:stream";
import type { IncomingMessage, ServerResponse } from "node:http";

const text = { "application/json": { schema: { type: "string" } } };
const problem = {
  "application/problem+json": { schema: { type: "object", properties: { detail: { type: "string" } } } },
};
const events = { "text/event-stream": { schema: { type: "string" } } };

function get(operationId: string, content: object, more: object = {}): object {
  return { get: { operationId, responses: { 200: { description: "Fine", content }, ...more } } };
}

/** A contract of calls that succeed, fail, are slow or never end. */
export const runtimeDocument = {
  openapi: "3.1.0",
  info: { title: "Harbour", version: "1" },
  paths: {
    "/quick": get("quick", text),
    "/never": get("never", text),
    "/open": get("open", text),
    "/broken": get("broken", text),
    "/idle": get("idle", events),
    "/counting": get("counting", events),
    "/problem": get("problem", text, { 409: { description: "No", content: problem } }),
    "/flaky": {
      get: {
        operationId: "flaky",
        parameters: [{ name: "times", in: "query", schema: { type: "integer" } }],
        responses: { 200: { description: "Fine", content: text }, 503: { description: "Later" } },
      },
    },
    "/secret": {
      get: {
        operationId: "secret",
        security: [{ Token: [] }],
        responses: { 200: { description: "Fine", content: text } },
      },
    },
    "/chart": {
      get: {
        operationId: "chart",
        parameters: [{ name: "broken", in: "query", schema: { type: "boolean" } }],
        responses: { 200: { description: "Fine", content: { "application/octet-stream": {} } } },
      },
    },
    "/upload": {
      put: {
        operationId: "upload",
        requestBody: { required: true, content: { "application/octet-stream": {} } },
        responses: { 200: { description: "Fine", content: text } },
      },
    },
  },
  components: { securitySchemes: { Token: { type: "http", scheme: "bearer" } } },
};

/** Responds as the paths define, and counts open requests. */
export function answering(): (request: IncomingMessage, response: ServerResponse) => void {
  let open = 0;
  let flaky = 0;
  const say = (response: ServerResponse, value: unknown, status = 200, type = "application/json"): void => {
    response.writeHead(status, { "content-type": type }).end(JSON.stringify(value));
  };
  return (request, response) => {
    const { pathname, searchParams } = new URL(request.url ?? "/", "http://harbour.invalid");
    const hold = (): void => {
      open++;
      response.on("close", () => open--);
    };
    switch (pathname) {
      case "/never":
        hold();
        return;
      case "/idle":
        hold();
        response.writeHead(200, { "content-type": "text/event-stream" }).flushHeaders();
        return;
      case "/counting": {
        response.writeHead(200, { "content-type": "text/event-stream" });
        let count = 0;
        const timer = setInterval(() => response.write(`data: ${String(count++)}\n\n`), 5);
        response.on("close", () => {
          clearInterval(timer);
        });
        return;
      }
      case "/broken":
        response.writeHead(200, { "content-type": "application/json", "content-length": "100" }).write('"half');
        setTimeout(() => response.destroy(), 20);
        return;
      case "/open":
        say(response, String(open));
        return;
      case "/problem":
        say(response, { detail: "fog" }, 409, "application/problem+json");
        return;
      case "/flaky": {
        const fails = flaky < Number(searchParams.get("times"));
        flaky = fails ? flaky + 1 : 0;
        if (fails) say(response, "later", 503);
        else say(response, "fine");
        return;
      }
      case "/secret":
        say(response, "fine", request.headers.authorization === "Bearer new" ? 200 : 401);
        return;
      case "/chart": {
        // More bytes than an app wants in memory, with the first and the last of them marked.
        const piece = Buffer.alloc(1_000_000);
        const pieces = Array.from({ length: 100 }, (_, at) => {
          const own = at === 0 || at === 99 ? Buffer.from(piece) : piece;
          if (at === 0) own[0] = 7;
          if (at === 99) own[own.length - 1] = 9;
          return own;
        });
        response.writeHead(200, { "content-type": "application/octet-stream", "content-length": "100000000" });
        if (searchParams.get("broken") === "true") response.write(piece, () => response.destroy());
        else Readable.from(pieces).pipe(response);
        return;
      }
      case "/upload": {
        let size = 0;
        request.on("data", (piece: Buffer) => (size += piece.length));
        request.on("end", () => {
          say(response, String(size));
        });
        return;
      }
      default:
        say(response, "fine");
    }
  };
}

/** Doubles of every size by their bits, and how ECMAScript writes them. */
export function numberRows(): string {
  const view = new DataView(new ArrayBuffer(8));
  let state = 1n;
  const lines = [0.1, 1e21, 1e-7, 123456789012345680000, 5e-324, 1.7976931348623157e308, 2e23, 2 ** 53, 0.000001, -0.5];
  for (let count = 0; count < 3000; count++) {
    state = (state * 6364136223846793005n + 1442695040888963407n) & 0xffffffffffffffffn;
    view.setBigUint64(0, state);
    const value = view.getFloat64(0);
    if (Number.isFinite(value)) lines.push(value, Math.fround(value % 1000), Math.round(value % 1e9) / 100);
  }
  const rows = lines
    .filter((value) => Number.isFinite(value))
    .map((value) => {
      view.setFloat64(0, value);
      return `${view.getBigInt64(0).toString()} ${JSON.stringify(value)}`;
    });
  return rows.join("\n");
}

/** Texts that are JSON, and texts that nearly are, with the text after reading and writing. */
export function jsonRows(): string {
  const whole = ['{"a":[1,-2.5e3,true,false,null,"x\\n\\u00fc\\ud83d\\udea2"],"":{}}', "[]", '"a"', "0", "-0.0", "1E5"];
  const found = new Set<string>(whole);
  const changes = [
    "",
    "0",
    '"',
    ",",
    "}",
    "]",
    "\\",
    "\u0001",
    " ",
    "e",
    "-",
    ".",
    "n",
    "{",
    "\ud800",
    "\\ud800",
    "tru",
  ];
  for (const each of whole)
    for (let at = 0; at <= each.length; at++)
      for (const change of changes) {
        found.add(each.slice(0, at) + change + each.slice(at));
        found.add(each.slice(0, at) + change + each.slice(at + 1));
      }
  const rows = [...found].flatMap((text) => {
    // Halves of characters have no bytes, and ECMAScript has no number this large.
    if (/[\ud800-\udfff]/.test(text.replace(/[\ud800-\udbff][\udc00-\udfff]/g, ""))) return [];
    let written = "none";
    try {
      written = JSON.stringify(JSON.parse(text));
    } catch {
      // It stays the same: there is none.
    }
    // Numbers keep their digits.
    if (/\d\.0|[eE]\d|-0|[eE][+-]/.test(text)) written = written === "none" ? written : "";
    return written === "" ? [] : [`${base64(text)} ${base64(written)}`];
  });
  return rows.join("\n");
}

function base64(text: string): string {
  return Buffer.from(text, "utf8").toString("base64");
}
