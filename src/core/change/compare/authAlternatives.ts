import type { AuthScheme, RestContract, RestOperation } from "../../contract/model.js";

/**
 * Returns the alternatives of credentials, each as a text that does not depend on the contract's names for schemes; ""
 * for none.
 *
 * @param earlier the contract before, for schemes with the same name: how they are sent is rated once, at the
 * connection
 */
export function authAlternatives(operation: RestOperation, contract: RestContract, earlier?: RestContract): string[] {
  return operation.auth.map((schemes) =>
    schemes
      .map((name) => {
        const own = contract.authSchemes.get(name);
        const scheme = own && (earlier?.authSchemes.get(name) ?? own);
        return scheme ? keyOf(scheme) : name;
      })
      .sort()
      .join("+"),
  );
}

/** Returns how a credential is sent, in words. */
export function schemeWords(scheme: AuthScheme): string {
  switch (scheme.kind) {
    case "key":
      return `the ${scheme.in === "query" ? "query parameter" : scheme.in} \`${scheme.name}\``;
    case "scheme":
      return `\`Authorization: ${scheme.scheme}\``;
    case "certificate":
      return "a client certificate";
    case "basic":
      return "user and password";
    case "bearer":
      return "a bearer token";
  }
}

function keyOf(scheme: AuthScheme): string {
  if (scheme.kind === "key") return `key ${scheme.in} ${scheme.name}`;
  return scheme.kind === "scheme" ? `scheme ${scheme.scheme}` : scheme.kind;
}
