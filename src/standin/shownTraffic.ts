import type { Contract } from "../core/contract/model.js";
import { isData } from "../core/text/parseData.js";
import { isSecretName } from "../core/text/secrets.js";

/** Functions for showing traffic. Only the presence of credentials is shown. */
export interface ShownTraffic {
  readonly headers: (headers: Iterable<readonly [string, string]>) => Record<string, string>;
  /** Returns a query with its question mark; "" if there is none. */
  readonly query: (search: string) => string;
  /** Returns a body, cut if it is long. If it is JSON, members with the name of a credential are hidden. */
  readonly body: (text: string) => string;
}

const hidden = "(hidden)";
const longestBody = 10_000;

/** Returns the names of headers, cookies and query parameters that contracts declare as credentials. */
export function credentialNames(contracts: readonly Contract[]): ReadonlySet<string> {
  const schemes = contracts.flatMap((each) => (each.protocol === "rest" ? [...each.authSchemes.values()] : []));
  return new Set(schemes.flatMap((scheme) => (scheme.kind === "key" ? [scheme.name] : [])));
}

/**
 * Returns the functions for showing traffic.
 *
 * @param names credentials besides those with well-known names
 */
export function shownTraffic(names: ReadonlySet<string>): ShownTraffic {
  const lower = new Set([...names].map((name) => name.toLowerCase()));
  const isSecret = (name: string): boolean => isSecretName(name) || lower.has(name.toLowerCase());
  const withoutSecrets = (value: unknown): unknown => {
    if (Array.isArray(value)) return value.map(withoutSecrets);
    if (!isData(value)) return value;
    return Object.fromEntries(
      Object.entries(value).map(([name, inner]) => [
        name,
        typeof inner === "string" && isSecret(name) && !/cursor|next|page/i.test(name) ? hidden : withoutSecrets(inner),
      ]),
    );
  };
  return {
    headers: (headers) =>
      Object.fromEntries([...headers].map(([name, value]) => [name, isSecret(name) ? hidden : value])),
    query: (search) => {
      const given = [...new URLSearchParams(search)];
      // The name of a sign-in's result does not show that it is a credential.
      const isSignIn = given.some(([name]) => name === "state");
      const pairs = given.map(([name, value]): [string, string] => [
        name,
        isSecret(name) || (isSignIn && name === "code") ? hidden : value,
      ]);
      return pairs.length === 0 ? "" : `?${new URLSearchParams(pairs).toString()}`;
    },
    body: (text) => {
      if (text.length > 4 * longestBody) return `${text.slice(0, longestBody)}…`;
      let shown = text;
      if (/^\s*[[{]/.test(text)) {
        try {
          shown = JSON.stringify(withoutSecrets(JSON.parse(text) as unknown), null, 2);
        } catch {
          // A body that is not JSON is shown as it is.
        }
      }
      return shown.length > longestBody ? `${shown.slice(0, longestBody)}…` : shown;
    },
  };
}
