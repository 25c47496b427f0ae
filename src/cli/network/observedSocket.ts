import { credentialOf } from "../../core/text/secrets.js";
import { STATUS_CODES, type IncomingMessage } from "node:http";
import type { Duplex } from "node:stream";
import { WebSocket, WebSocketServer, type RawData } from "ws";
import type { SeenExchange } from "../../standin/observe/exchange.js";
import { isOwnName } from "../../standin/ownName.js";
import { subscriptionExchanges } from "../../standin/observe/subscriptionExchanges.js";
import { socketProtocol } from "../../standin/graphql/subscriptionSocket.js";

/** Headers that the handshake with the backend sets itself (RFC 6455, section 4.1). */
const madeAnew = /^(host|connection|upgrade|sec-websocket-.*)$/;
const mostWaiting = 4 * 1024 * 1024;

/**
 * Passes sockets on to the backend unchanged, and reads the subscriptions in them.
 *
 * @param target the address of the backend for the app's paths
 * @param onExchange called with each event and its request
 */
export function observedSocket(
  target: URL,
  onExchange: (exchange: SeenExchange) => void,
): (request: IncomingMessage, socket: Duplex, head: Buffer) => void {
  let chosen = "";
  const server = new WebSocketServer({ noServer: true, handleProtocols: () => (chosen === "" ? false : chosen) });
  return (request, socket, head) => {
    // A socket that is disconnected ends like any other.
    socket.on("error", () => undefined);
    const refuse = (status: number): void => {
      socket.end(`HTTP/1.1 ${String(status)} ${STATUS_CODES[status] ?? "Refused"}\r\nconnection: close\r\n\r\n`);
    };
    if (!isOwnName(request.headers.host)) {
      refuse(421);
      return;
    }
    const asked = `${target.origin}${target.pathname.replace(/\/+$/, "")}${request.url ?? ""}`;
    // Anything but a path could lead to another host.
    if (request.url?.startsWith("/") !== true || !URL.canParse(asked)) {
      refuse(400);
      return;
    }
    const url = new URL(asked);
    const offered = request.headers["sec-websocket-protocol"]?.split(/,\s*/) ?? [];
    const headers = Object.fromEntries(Object.entries(request.headers).filter(([name]) => !madeAnew.test(name)));
    Object.assign(headers, { ...credentialOf(target), ...headers });
    const backend = connect(url, offered, headers);
    if (!backend) {
      refuse(400);
      return;
    }
    let isOpen = false;
    backend.on("unexpected-response", (_request, response) => {
      refuse(response.statusCode ?? 502);
      backend.terminate();
    });
    backend.on("error", () => {
      if (!isOpen && socket.writable) refuse(502);
    });
    const giveUp = (): void => {
      backend.terminate();
    };
    socket.once("close", giveUp);
    backend.once("open", () => {
      isOpen = true;
      // From here on, each side receives the other side's close.
      socket.off("close", giveUp);
      chosen = backend.protocol;
      server.handleUpgrade(request, socket, head, (app) => {
        const seen = backend.protocol === socketProtocol ? subscriptionExchanges(url, onExchange) : nobodyLooks;
        passOn(app, backend, seen.fromApp);
        passOn(backend, app, seen.fromBackend);
      });
      // The app has disconnected, or its handshake was not valid.
      if (!socket.writable) giveUp();
    });
  };
}

/** Undefined if the protocols that the app offers are not valid names. */
function connect(url: URL, offered: string[], headers: IncomingMessage["headers"]): WebSocket | undefined {
  try {
    return new WebSocket(`ws${url.href.slice("http".length)}`, offered, { headers, followRedirects: false });
  } catch (error) {
    if (error instanceof SyntaxError) return undefined;
    throw error;
  }
}

const nobodyLooks = { fromApp: () => undefined, fromBackend: () => undefined };

/** Passes messages of one side on, at the speed of the other. */
function passOn(from: WebSocket, to: WebSocket, look: (text: string) => void): void {
  from.on("message", (data: RawData, isBinary) => {
    if (!isBinary) look(textOf(data));
    if (to.readyState !== WebSocket.OPEN) return;
    to.send(data, { binary: isBinary }, () => {
      if (from.isPaused && to.bufferedAmount < mostWaiting) from.resume();
    });
    if (to.bufferedAmount >= mostWaiting) from.pause();
  });
  from.on("close", (code, reason) => {
    // Codes that no program may send (RFC 6455, section 7.4.1) mean that there was none.
    if (code === 1005 || code === 1006 || code === 1015) to.close();
    else to.close(code, reason);
  });
  from.on("error", () => {
    to.close();
  });
}

function textOf(data: RawData): string {
  return Array.isArray(data) ? Buffer.concat(data).toString() : Buffer.from(data as Buffer).toString();
}
