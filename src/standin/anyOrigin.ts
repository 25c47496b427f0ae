import type { MiddlewareHandler } from "hono";

/**
 * Allows pages of any origin to call, with credentials, and to read every header of a response (Fetch, "CORS
 * protocol"). Preflight requests are answered here. Any other OPTIONS request is a normal call.
 *
 * The headers are added to the existing response: a response with headers of its own would be created a second time.
 */
export const anyOrigin: MiddlewareHandler<object> = async (context, next) => {
  const origin = context.req.header("origin") ?? "*";
  const method = context.req.method === "OPTIONS" ? context.req.header("access-control-request-method") : undefined;
  if (method !== undefined) {
    const asked = context.req.header("access-control-request-headers");
    return new Response(null, {
      status: 204,
      headers: {
        "access-control-allow-origin": origin,
        "access-control-allow-credentials": "true",
        "access-control-allow-methods": method,
        ...(asked === undefined ? {} : { "access-control-allow-headers": asked }),
        vary: "Origin, Access-Control-Request-Method, Access-Control-Request-Headers",
      },
    });
  }
  await next();
  const { headers } = context.res;
  // For requests with credentials, an asterisk would be the name of a header.
  headers.set("access-control-expose-headers", [...headers.keys()].join(", "));
  headers.set("access-control-allow-origin", origin);
  headers.set("access-control-allow-credentials", "true");
  headers.append("vary", "Origin");
  return undefined;
};
