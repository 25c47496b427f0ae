import { createServer, type RequestListener } from "node:http";
import type { AddressInfo } from "node:net";
import { whenTestEnds } from "./whenTestEnds.js";

/** Starts a server that ends with the test, and returns its address. */
export async function listening(answer: RequestListener): Promise<string> {
  const server = createServer(answer);
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  whenTestEnds(() => {
    server.closeAllConnections();
    server.close();
  });
  return `http://127.0.0.1:${String((server.address() as AddressInfo).port)}`;
}
