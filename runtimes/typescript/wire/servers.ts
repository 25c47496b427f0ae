import { supplied, type Connection } from "./connection.js";

/** An address with its variables filled in. */
export function serverUrl(template: string, variables: Readonly<Record<string, string | undefined>>): string {
  return template.replace(/\{([^{}]+)\}/g, (whole, name: string) => variables[name] ?? whole);
}

/** The address of a call that has a server of its own: what the app chose for it, else that server. */
export async function ownServer(connection: Connection, server: string): Promise<string> {
  const chosen = connection.servers?.[server];
  if (chosen !== undefined) return supplied(chosen);
  if (/^[a-z][a-z0-9+.-]*:/i.test(server)) return server;
  return new URL(server, `${(await supplied(connection.baseUrl)).replace(/\/+$/, "")}/`).href;
}
