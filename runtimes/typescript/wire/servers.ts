import { supplied, type Connection } from "./connection.js";
import type { OwnServer } from "./send.js";

/** An address with its variables filled in. */
export function serverUrl(template: string, variables: Readonly<Record<string, string | undefined>>): string {
  return template.replace(/\{([^{}]+)\}/g, (whole, name: string) => variables[name] ?? whole);
}

/**
 * The server of a call that has one of its own: the app's choice, otherwise the contract's. It gets credentials only if
 * the app has chosen it, or if its origin gets them anyway.
 */
export async function ownServer(connection: Connection, server: string): Promise<OwnServer> {
  const chosen = connection.servers?.[server];
  if (chosen !== undefined) return { url: await supplied(chosen), isNamed: true };
  const base = await supplied(connection.baseUrl);
  const hasHost = /^(?:[a-z][a-z0-9+.-]*:)?[\\/]{2}/i.test(server);
  if (!hasHost) return { url: new URL(server, `${base.replace(/\/+$/, "")}/`).href, isNamed: true };
  const url = /^[a-z]/i.test(server) ? server : `${/^http:/i.test(base) ? "http" : "https"}:${server}`;
  const named = [base, connection.defaultUrl, ...Object.values(connection.servers ?? {})].map(originOf);
  const origin = originOf(url);
  return { url, isNamed: origin !== undefined && named.includes(origin) };
}

/** The origin of an address; undefined for one that is relative to the page, and for one that a function returns. */
function originOf(address: unknown): string | undefined {
  try {
    return typeof address === "string" ? new URL(address).origin : undefined;
  } catch {
    return undefined;
  }
}
