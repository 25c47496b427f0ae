import type { Server } from "../../contract/model.js";

/** Returns a server's address with the defaults of its variables. */
export function serverUrl(server: Server): string {
  return server.url
    .replace(/\{([^{}]+)\}/g, (whole, name: string) => server.variables.get(name)?.default ?? whole)
    .replace(/\/+$/, "");
}

/** Returns the default address; undefined if the contract has none. */
export function defaultUrl(servers: readonly Server[]): string | undefined {
  const [first] = servers;
  const url = first && serverUrl(first);
  return url !== undefined && /^https?:\/\/[^{}/][^{}]*$/.test(url) ? url : undefined;
}
