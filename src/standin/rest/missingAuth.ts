import type { AuthScheme, RestContract, RestOperation } from "../../core/contract/model.js";

/** The parts of a request that may contain a credential. */
export interface SeenCredentials {
  readonly header: (name: string) => string | undefined;
  readonly query: URLSearchParams;
}

/**
 * Returns the credentials that an operation requires and a request lacks; undefined if none is missing. Any credential
 * of the right kind is accepted.
 */
export function missingAuth(
  { auth }: RestOperation,
  { authSchemes }: RestContract,
  request: SeenCredentials,
): string | undefined {
  if (auth.length === 0 || auth.some((together) => together.every((name) => brings(authSchemes.get(name), request))))
    return undefined;
  const ways = auth.map((together) =>
    together.map((name) => `${wanted(authSchemes.get(name))} (${name})`).join(" and "),
  );
  return `requires ${ways.join(", or ")}; any value is accepted here`;
}

function brings(scheme: AuthScheme | undefined, { header, query }: SeenCredentials): boolean {
  if (!scheme || scheme.kind === "certificate") return true;
  const authorization = header("authorization") ?? "";
  switch (scheme.kind) {
    case "bearer":
      return /^bearer\s+\S/i.test(authorization);
    case "basic":
      return /^basic\s+\S/i.test(authorization);
    case "scheme":
      return authorization.toLowerCase().startsWith(`${scheme.scheme.toLowerCase()} `);
    case "key":
      if (scheme.in === "header") return (header(scheme.name) ?? "") !== "";
      if (scheme.in === "query") return (query.get(scheme.name) ?? "") !== "";
      return new RegExp(`(?:^|;\\s*)${escaped(scheme.name)}=[^;\\s]`).test(header("cookie") ?? "");
  }
}

function escaped(text: string): string {
  return text.replace(/[.*+?^${}()|[\]\\]/g, "\\$&");
}

function wanted(scheme: AuthScheme | undefined): string {
  switch (scheme?.kind) {
    case "key":
      return `the ${scheme.in === "query" ? "query parameter" : scheme.in} ${scheme.name}`;
    case "bearer":
      return "Authorization: Bearer …";
    case "basic":
      return "Authorization: Basic …";
    case "scheme":
      return `Authorization: ${scheme.scheme} …`;
    default:
      return "a credential";
  }
}
