import type { Server } from "../../contract/model.js";
import { serverUrl } from "../../sdk/lower/serverAddress.js";

/** Where calls go: the first server, its variables at their defaults. */
export interface ServerAddress {
  /** Undefined where the contract says none: then it is the one that the app supplies. */
  readonly origin: string | undefined;
  /** Without a slash at its end; "" where there is none. */
  readonly path: string;
}

/** Where calls go that are sent to a list of servers; a contract without any is served at the root (OpenAPI 3.1, section 4.8.1). */
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
 * Whether calls go to another origin than before. Of a contract that says none the app has to say it, and goes on saying
 * it.
 *
 * @param isOwn it is a single operation that has servers of its own on either side
 */
export function isElsewhere(from: ServerAddress, to: ServerAddress, isOwn: boolean): boolean {
  if (to.origin === undefined || from.origin === to.origin) return false;
  return from.origin !== undefined || isOwn;
}
