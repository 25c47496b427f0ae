import type { Server } from "../../contract/model.js";

/** A server's address with the defaults of its variables. */
export function serverUrl(server: Server): string {
  return server.url
    .replace(/\{([^{}]+)\}/g, (whole, name: string) => server.variables.get(name)?.default ?? whole)
    .replace(/\/+$/, "");
}

/** The address to use when the app gives none; undefined when the contract does not say it. */
export function defaultUrl(servers: readonly Server[]): string | undefined {
  const [first] = servers;
  const url = first && serverUrl(first);
  return url !== undefined && /^https?:\/\/[^{}/][^{}]*$/.test(url) ? url : undefined;
}
