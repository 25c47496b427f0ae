import type { Connection, Outgoing } from "./connection.js";
import { failure } from "./failure.js";

const redirected = [301, 302, 303, 307, 308];
const mostRedirects = 20;

/** Whether a header never contains a secret. Any other header may be a credential. */
export function isHarmless(name: string): boolean {
  return /^(?:accept|accept-language|content-language|content-type|range|user-agent)$/i.test(name);
}

/**
 * Sends a request and follows redirects (Fetch standard, section 4.4). Once a redirect leads to another origin, no
 * credential is sent. Browsers do not show where a redirect leads, and remove only the credentials that they know. In
 * browsers, a request with a key in a header of its own therefore follows no redirect.
 *
 * @throws the failure of the call for a redirect that cannot be followed
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
      throw refuse("the server redirects, the browser hides the target, and a key would be sent there");
    const location = redirected.includes(response.status) ? response.headers.get("location") : null;
    if (location === null) return response;
    if (count === mostRedirects) throw refuse(`the server redirects more than ${String(mostRedirects)} times`);
    const from = new URL(url);
    const to = targetOf(location, from);
    if (to === undefined) throw refuse("the server redirects to an address that is not valid");
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
    // The caller reports what is not a valid address.
    return undefined;
  }
}

/** Whether the platform shows redirects. Platforms for servers do, and most of them have a name. */
export function seesRedirects(): boolean {
  const { navigator } = globalThis as { readonly navigator?: { readonly userAgent?: string } };
  return navigator === undefined || /^(?:node|deno|bun|cloudflare)/i.test(navigator.userAgent ?? "");
}
