import type { IncomingMessage, ServerResponse } from "node:http";
import type { Duplex } from "node:stream";
import { serve } from "@hono/node-server";
import { problem } from "../../core/problem/problem.js";
import { exitCodes, Halt } from "../../workspace/project/halt.js";
import { errorCode } from "../../workspace/files/textFile.js";
import { withoutUpgrade } from "./withoutUpgrade.js";

/**
 * Starts a server with a handler.
 *
 * @returns its address and a function that closes it
 * @throws Halt (usage) if the port cannot be used
 */
export function listen(
  fetch: (
    request: Request,
    server: { readonly incoming: IncomingMessage; readonly outgoing: ServerResponse },
  ) => Response | Promise<Response>,
  host: string,
  {
    port,
    onUpgrade,
  }: {
    readonly port: number;
    readonly onUpgrade?: ((request: IncomingMessage, socket: Duplex, head: Buffer) => void) | undefined;
  },
): Promise<{ port: number; close: () => Promise<void> }> {
  const upgraded = new Set<Duplex>();
  return new Promise((resolve, reject) => {
    const answer = (request: Request, env: unknown): Response | Promise<Response> =>
      fetch(request, env as { incoming: IncomingMessage; outgoing: ServerResponse });
    const server = serve({ fetch: answer, hostname: host, port }, (info) => {
      const close = (): Promise<void> =>
        new Promise((done) => {
          server.close(() => {
            done();
          });
          if ("closeAllConnections" in server) server.closeAllConnections();
          // An upgraded connection no longer belongs to the server, which waits for it anyway.
          for (const socket of upgraded) socket.destroy();
        });
      resolve({ port: info.port, close });
    });
    if (onUpgrade) {
      server.on("upgrade", (request: IncomingMessage, socket: Duplex, head: Buffer) => {
        upgraded.add(socket);
        socket.once("close", () => upgraded.delete(socket));
        if (request.headers.upgrade?.toLowerCase() === "websocket") onUpgrade(request, socket, head);
        else server.emit("connection", withoutUpgrade(request, socket, head));
      });
    }
    server.on("error", (error: Error) => {
      const code = errorCode(error);
      const why = code === "EADDRINUSE" ? "the port is in use" : (code ?? error.message);
      reject(
        new Halt(
          [
            problem("play.port", `The stand-in server cannot listen on ${host}:${String(port)}: ${why}.`, {
              hint: "Choose another port with --port. 0 means any free port.",
            }),
          ],
          exitCodes.usage,
        ),
      );
    });
  });
}
