import type { RestContract, RestOperation } from "../contract/model.js";

/** The ways to be let in, each as a text that does not depend on what the contract calls its schemes; "" for none. */
export function authAlternatives(operation: RestOperation, contract: RestContract): string[] {
  return operation.auth.map((schemes) =>
    schemes
      .map((name) => {
        const scheme = contract.authSchemes.get(name);
        if (scheme?.kind === "key") return `key ${scheme.in} ${scheme.name}`;
        return scheme?.kind === "scheme" ? `scheme ${scheme.scheme}` : (scheme?.kind ?? name);
      })
      .sort()
      .join("+"),
  );
}
