import type { IncomingMessage } from "node:http";
import { Duplex } from "node:stream";

/** Headers that request another protocol on the same connection (RFC 9110, section 7.8; RFC 7540, section 3.2). */
const asking = /^(upgrade|http2-settings)$/i;

/**
 * Returns the connection of a request for another protocol, as if it had not been requested. A server may ignore such a
 * request (RFC 9110, section 7.8), and programs ask for HTTP/2 with their first request whether the server supports it
 * or not.
 *
 * @param head the bytes of the connection after the request's headers
 */
export function withoutUpgrade(request: IncomingMessage, socket: Duplex, head: Buffer): Duplex {
  const { method = "GET", url = "/", httpVersion, rawHeaders } = request;
  const lines = [`${method} ${url} HTTP/${httpVersion}`];
  for (let at = 0; at < rawHeaders.length; at += 2) {
    const name = rawHeaders[at] ?? "";
    const value = rawHeaders[at + 1] ?? "";
    if (asking.test(name)) continue;
    if (name.toLowerCase() !== "connection") lines.push(`${name}: ${value}`);
    else {
      const options = value.split(",").filter((option) => !asking.test(option.trim()));
      if (options.length > 0) lines.push(`${name}: ${options.join(",").trim()}`);
    }
  }
  const connection = new Duplex({
    read: () => {
      socket.resume();
    },
    write: (chunk: Buffer, _encoding, done) => {
      socket.write(chunk, done);
    },
    final: (done) => {
      socket.end(done);
    },
    destroy: (error, done) => {
      socket.destroy();
      done(error);
    },
  });
  connection.push(Buffer.concat([Buffer.from(`${lines.join("\r\n")}\r\n\r\n`, "latin1"), head]));
  socket.on("data", (chunk: Buffer) => {
    if (!connection.push(chunk)) socket.pause();
  });
  socket.on("end", () => connection.push(null));
  socket.on("error", (error) => connection.destroy(error));
  socket.on("close", () => connection.destroy());
  // The server that takes the connection reports disconnections.
  connection.on("error", () => undefined);
  return connection;
}
