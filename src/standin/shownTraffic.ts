import type { Contract } from "../core/contract/model.js";
import { isData } from "../core/text/parseData.js";
import { isSecretName } from "../core/text/secrets.js";

/** Traffic as it may be shown: credentials say only that they were there. */
export interface ShownTraffic {
  readonly headers: (headers: Iterable<readonly [string, string]>) => Record<string, string>;
  /** A query with its question mark; "" where there is none. */
  readonly query: (search: string) => string;
  /** A body, cut where it is long, and without what is named like a credential where it is JSON. */
  readonly body: (text: string) => string;
}

const hidden = "(hidden)";
const longestBody = 10_000;

/** The names of headers, cookies and parameters of the query that contracts declare as credentials. */
export function credentialNames(contracts: readonly Contract[]): ReadonlySet<string> {
  const schemes = contracts.flatMap((each) => (each.protocol === "rest" ? [...each.authSchemes.values()] : []));
  return new Set(schemes.flatMap((scheme) => (scheme.kind === "key" ? [scheme.name] : [])));
}

/**
 * How traffic is shown.
 *
 * @param names credentials beside those that are known by their names
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
      // The name of what a sign-in gives back says nothing by itself.
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
          // What is no JSON is shown as it came.
        }
      }
      return shown.length > longestBody ? `${shown.slice(0, longestBody)}…` : shown;
    },
  };
}
