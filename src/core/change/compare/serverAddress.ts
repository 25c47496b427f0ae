import type { Server } from "../../contract/model.js";
import { serverUrl } from "../../sdk/lower/serverAddress.js";

/** The address of calls: the first server, with its variables at their defaults. */
export interface ServerAddress {
  /** Undefined if the contract has none. The app then supplies it. */
  readonly origin: string | undefined;
  /** Without a slash at its end; "" if there is none. */
  readonly path: string;
}

/** Returns the address of calls for a list of servers. Without servers, it is the root (OpenAPI 3.1, section 4.8.1). */
export function addressOf(servers: readonly Server[]): ServerAddress {
  const [first] = servers;
  const url = first ? serverUrl(first) : "";
  const absolute = /^([a-z][a-z0-9+.-]*:\/\/[^/?#]*)([^?#]*)/i.exec(url.startsWith("//") ? `https:${url}` : url);
  const path = (absolute ? absolute[2] : url.replace(/[?#].*$/, "")) ?? "";
  const inside = path.replace(/^\.?\//, "/").replace(/\/+$/, "");
  return {
    origin: absolute?.[1]?.toLowerCase(),
    path: inside === "" || inside.startsWith("/") ? inside : `/${inside}`,
  };
}

/**
 * Returns whether calls go to another origin than before. For a contract without an origin, the app supplies it and
 * continues to do so.
 *
 * @param isOwn whether a single operation has servers of its own on either side
 */
export function isElsewhere(from: ServerAddress, to: ServerAddress, isOwn: boolean): boolean {
  if (to.origin === undefined || from.origin === to.origin) return false;
  return from.origin !== undefined || isOwn;
}
