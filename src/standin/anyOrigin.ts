import type { MiddlewareHandler } from "hono";

/**
 * Lets pages of any origin call, credentials included, and read every header of an answer (Fetch, "CORS protocol").
 * Preflights are answered here; any other OPTIONS is a call like all the rest.
 *
 * The headers are put into the answer that was made: an answer with headers of its own would be made a second time.
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
  // Where credentials are sent, an asterisk would be the name of a header.
  headers.set("access-control-expose-headers", [...headers.keys()].join(", "));
  headers.set("access-control-allow-origin", origin);
  headers.set("access-control-allow-credentials", "true");
  headers.append("vary", "Origin");
  return undefined;
};
