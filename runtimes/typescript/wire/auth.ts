import type { AuthScheme } from "./connection.js";

/** `Authorization: Bearer …` (RFC 6750, section 2.1). */
export const bearer: AuthScheme = (token, { headers }) => {
  headers.set("authorization", `Bearer ${token}`);
};

/** `Authorization: Basic …` (RFC 7617); the credential is "user:password". */
export const basic: AuthScheme = (credential, { headers }) => {
  const bytes = new TextEncoder().encode(credential);
  headers.set("authorization", `Basic ${btoa(String.fromCharCode(...bytes))}`);
};

/** Another HTTP authentication scheme (RFC 9110, section 11.6.2). */
export function scheme(name: string): AuthScheme {
  return (credential, { headers }) => {
    headers.set("authorization", `${name} ${credential}`);
  };
}

/** An API key in a header of its own. */
export function keyInHeader(name: string): AuthScheme {
  return (key, into) => {
    into.headers.set(name, key);
    into.hasKey = true;
  };
}

/** An API key in the query. */
export function keyInQuery(name: string): AuthScheme {
  return (key, { query }) => {
    query.push(`${encodeURIComponent(name)}=${encodeURIComponent(key)}`);
  };
}

/** An API key in a cookie. Browsers manage cookies themselves and ignore the header. */
export function keyInCookie(name: string): AuthScheme {
  return (key, { headers }) => {
    const others = headers.get("cookie");
    headers.set("cookie", `${others === null ? "" : `${others}; `}${name}=${encodeURIComponent(key)}`);
  };
}
