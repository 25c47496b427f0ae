import { createServer, request as ask, type IncomingHttpHeaders, type Server } from "node:http";
import { connect, type AddressInfo } from "node:net";
import type { Interrupt } from "./storyStep.js";

/** A request as it was received, with the headers that an SDK sets. */
export interface Recorded {
  readonly method: string;
  readonly target: string;
  readonly headers: Readonly<Record<string, string>>;
  readonly body: string;
}

/** A proxy between an SDK and the stand-in server that records every request. */
export class Recorder {
  /** Responses to the next requests in place of the stand-in server's. */
  interrupts: Interrupt[] = [];
  requests: Recorded[] = [];
  private constructor(
    private readonly server: Server,
    /** Headers of the language's platform: by name, or with the value that it sends ("accept: …"). */
    private readonly platform: ReadonlySet<string>,
  ) {}

  static async before(standin: string, platform: ReadonlySet<string>): Promise<Recorder> {
    const { hostname, port } = new URL(standin);
    const server = createServer((incoming, response) => {
      const pieces: Buffer[] = [];
      incoming.on("data", (piece: Buffer) => pieces.push(piece));
      incoming.on("end", () => {
        const body = Buffer.concat(pieces);
        const { method = "", url = "", headers } = incoming;
        recorder.requests.push(recorder.recorded(method, url, headers, body));
        const interrupt = recorder.interrupts.shift();
        if (interrupt === "broken") {
          incoming.socket.destroy();
          return;
        }
        if (interrupt !== undefined && interrupt !== null) {
          const { status = 200, type = "application/json", body: text = "" } = interrupt;
          response.writeHead(status, type === null ? {} : { "content-type": type }).end(String(text));
          return;
        }
        const onward = ask(
          { hostname, port, method, path: url, headers: { ...headers, host: `${hostname}:${port}` } },
          (answer) => {
            response.writeHead(answer.statusCode ?? 502, answer.headers);
            answer.pipe(response);
          },
        );
        onward.on("error", () => response.destroy());
        response.on("close", () => onward.destroy());
        onward.end(body);
      });
      incoming.on("error", () => undefined);
    });
    server.on("upgrade", (incoming, socket, head) => {
      const { url = "", headers, rawHeaders } = incoming;
      const { "sec-websocket-protocol": protocol = "" } = headers;
      recorder.requests.push({ method: "GET", target: url, headers: { "sec-websocket-protocol": protocol }, body: "" });
      const onward = connect(Number(port), hostname, () => {
        const lines = rawHeaders.flatMap((name, at) => (at % 2 === 0 ? [`${name}: ${rawHeaders[at + 1] ?? ""}`] : []));
        onward.write(`GET ${url} HTTP/1.1\r\n${lines.join("\r\n")}\r\n\r\n`);
        onward.write(head);
        socket.pipe(onward).pipe(socket);
      });
      for (const each of [socket, onward]) each.on("error", () => onward.destroy());
      socket.on("close", () => onward.destroy());
    });
    const recorder = new Recorder(server, platform);
    await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
    return recorder;
  }

  get address(): string {
    return `http://127.0.0.1:${String((this.server.address() as AddressInfo).port)}`;
  }

  close(): void {
    this.server.closeAllConnections();
    this.server.close();
  }

  private recorded(method: string, target: string, headers: IncomingHttpHeaders, body: Buffer): Recorded {
    const boundary = /boundary=([^;]+)/.exec(headers["content-type"] ?? "")?.[1];
    const shown = (text: string): string => (boundary === undefined ? text : text.replaceAll(boundary, "BOUNDARY"));
    const own = Object.entries(headers)
      .filter(([name, value]) => !this.platform.has(name) && !this.platform.has(`${name}: ${String(value)}`))
      .map(([name, value]): [string, string] => [name, shown(String(value))]);
    return { method, target, headers: Object.fromEntries(own.sort()), body: shown(body.toString("utf8")) };
  }
}
