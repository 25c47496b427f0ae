import type { Connection, Outgoing } from "./connection.js";
import { failure } from "./failure.js";

const redirected = [301, 302, 303, 307, 308];
const mostRedirects = 20;

/** Whether a header tells nobody's secrets, whoever set it; any other may be a credential. */
export function isHarmless(name: string): boolean {
  return /^(?:accept|accept-language|content-language|content-type|range|user-agent)$/i.test(name);
}

/**
 * Sends a request and follows redirects (Fetch standard, section 4.4), without any credential once they lead to another
 * origin. Browsers do not show where a redirect leads, and drop only what they know as credentials: there, a request
 * with a key in a header of its own follows none.
 *
 * @throws a failure of the call for a redirect that cannot be followed
 */
export async function fetchFollowing(connection: Connection, request: Outgoing): Promise<Response> {
  const { call, signal, duplex, hasKey = false } = request;
  const { init } = connection;
  let { url, method, headers, body } = request;
  const wants = init?.redirect ?? (hasKey || seesRedirects() ? "manual" : "follow");
  const refuse = (why: string): Error => failure(call, why, { status: "unreachable" });
  for (let count = 0; ; count++) {
    const own = { method, headers, body: body ?? null, signal, redirect: wants, ...(duplex && { duplex }) };
    const response = await connection.fetch(url, { ...init, ...own });
    if (init?.redirect !== undefined || wants === "follow") return response;
    if (response.type === "opaqueredirect")
      throw refuse("the server redirects to where the browser does not show, and a key would go along");
    const location = redirected.includes(response.status) ? response.headers.get("location") : null;
    if (location === null) return response;
    if (count === mostRedirects) throw refuse(`the server redirects more than ${String(mostRedirects)} times`);
    const from = new URL(url);
    const to = targetOf(location, from);
    if (to === undefined) throw refuse("the server redirects to what is no address");
    await response.body?.cancel();
    const { status } = response;
    const becomesGet = status === 303 ? method !== "HEAD" : status < 303 && method === "POST";
    if (duplex !== undefined && !becomesGet) throw refuse("the server redirects, and a stream cannot be sent twice");
    const kept = new Headers();
    headers.forEach((value, name) => {
      if (to.origin === from.origin || isHarmless(name)) kept.set(name, value);
    });
    headers = kept;
    if (becomesGet) {
      method = "GET";
      body = undefined;
      headers.delete("content-type");
    }
    url = to.href;
  }
}

function targetOf(location: string, from: URL): URL | undefined {
  try {
    const to = new URL(location, from);
    // The platform refuses addresses with a user in them.
    to.username = to.password = "";
    return /^https?:$/.test(to.protocol) ? to : undefined;
  } catch {
    // What is no address is told by the caller.
    return undefined;
  }
}

/** Whether the platform is no browser and shows redirects: those that run servers do, and most have a name. */
export function seesRedirects(): boolean {
  const { navigator } = globalThis as { readonly navigator?: { readonly userAgent?: string } };
  return navigator === undefined || /^(?:node|deno|bun|cloudflare)/i.test(navigator.userAgent ?? "");
}
