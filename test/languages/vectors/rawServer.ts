import { createServer, type RequestListener, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import type { RawAnswer } from "./vectorRow.js";

/** A request as it was received. */
export interface RawRequest {
  readonly method: string;
  readonly target: string;
  readonly headers: ReadonlyMap<string, string>;
  readonly body: string;
}

/** Two servers with given responses that record their requests. */
export class RawServer {
  /** The responses to the next requests, in order. */
  answers: RawAnswer[] = [];
  readonly requests: RawRequest[] = [];
  private readonly servers: Server[] = [];
  private readonly addresses: string[] = [];

  /** Starts them on free ports. */
  static async started(): Promise<RawServer> {
    const raw = new RawServer();
    for (let count = 0; count < 2; count++) {
      const server = createServer(raw.listener);
      await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
      raw.servers.push(server);
      raw.addresses.push(`http://127.0.0.1:${String((server.address() as AddressInfo).port)}`);
    }
    return raw;
  }

  /** The address of the server for calls. */
  get address(): string {
    return this.addresses[0] ?? "";
  }

  close(): void {
    for (const server of this.servers) {
      server.closeAllConnections();
      server.close();
    }
  }

  private readonly listener: RequestListener = (request, response) => {
    const pieces: Buffer[] = [];
    request.on("data", (piece: Buffer) => pieces.push(piece));
    request.on("end", () => {
      const { method = "", url = "", headers } = request;
      this.requests.push({
        method,
        target: url,
        headers: new Map(Object.entries(headers).map(([name, value]) => [name, String(value)])),
        body: Buffer.concat(pieces).toString("utf8"),
      });
      const answer: RawAnswer = this.answers.shift() ?? {};
      const { status = 200, type = "application/json", headers: more = {}, body = "" } = answer;
      const said = Object.entries(more).map(([name, value]): [string, string] => [name, this.placed(value)]);
      response.writeHead(status, { ...(type === null ? {} : { "content-type": type }), ...Object.fromEntries(said) });
      if (status === 204 || status === 304) response.end();
      else if (typeof body === "string") response.end(body);
      else void inPieces(body, (piece) => response.write(piece)).then(() => response.end());
    });
  };

  private placed(value: string): string {
    const [same = "", other = ""] = this.addresses;
    return value
      .replace("{same}", same)
      .replace("{other}", other)
      .replace("{user}", same.replace("//", "//quay:tide@"));
  }
}

/** Writes pieces so that each is sent separately. */
async function inPieces(pieces: readonly string[], write: (piece: string) => void): Promise<void> {
  for (const piece of pieces) {
    write(piece);
    await new Promise((resolve) => setTimeout(resolve, 1));
  }
}
