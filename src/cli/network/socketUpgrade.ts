import type { IncomingMessage } from "node:http";
import type { Duplex } from "node:stream";
import { WebSocketServer } from "ws";
import type { Standin } from "../../standin/standin.js";
import { socketProtocol, subscriptionSocket } from "../../standin/graphql/subscriptionSocket.js";

const mostBytes = 1024 * 1024;

/**
 * Returns a handler that accepts sockets for subscriptions of the stand-in server's GraphQL contracts. Any other socket
 * is refused.
 */
export function socketUpgrade(standin: Standin): (request: IncomingMessage, socket: Duplex, head: Buffer) => void {
  const server = new WebSocketServer({
    noServer: true,
    maxPayload: mostBytes,
    handleProtocols: (offered) => (offered.has(socketProtocol) ? socketProtocol : false),
  });
  return (request, socket, head) => {
    const [, name = ""] = (request.url ?? "").split(/[/?]/);
    const subscribe = standin.subscriptionsOf(name);
    const isOffered = request.headers["sec-websocket-protocol"]?.split(/,\s*/).includes(socketProtocol) === true;
    if (!subscribe || !isOffered) {
      socket.end("HTTP/1.1 400 Bad Request\r\nconnection: close\r\n\r\n");
      return;
    }
    // A socket that is disconnected ends like any other.
    socket.on("error", () => undefined);
    server.handleUpgrade(request, socket, head, (client) => {
      const conversation = subscriptionSocket(
        {
          send: (text) => {
            client.send(text);
          },
          close: (code, reason) => {
            client.close(code, reason);
          },
        },
        subscribe,
      );
      client.on("message", (data: Buffer) => {
        conversation.receive(data.toString());
      });
      client.on("close", conversation.closed);
      client.on("error", () => undefined);
    });
  };
}
