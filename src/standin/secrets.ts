import { isData } from "../core/text/parseData.js";

const secretNames =
  /authorization|cookie|token|secret|passw|api[-_]?key|credential|session|signature|^x-.*-key$|^(?:key|auth|sig)$/i;
const hidden = "(hidden)";

/** Headers as they may be shown: credentials say only that they were there. */
export function shownHeaders(headers: Iterable<readonly [string, string]>): Record<string, string> {
  const entries = [...headers].map(([name, value]): [string, string] => [
    name,
    secretNames.test(name) ? hidden : value,
  ]);
  return Object.fromEntries(entries);
}

/** A query as it may be shown. */
export function shownQuery(search: string, credentials: ReadonlySet<string> = new Set()): string {
  const pairs = [...new URLSearchParams(search)].map(([name, value]): [string, string] => [
    name,
    secretNames.test(name) || credentials.has(name) ? hidden : value,
  ]);
  return pairs.length === 0 ? "" : `?${new URLSearchParams(pairs).toString()}`;
}

const longestBody = 10_000;

/** A body as it may be shown: cut where it is long, and without what is named like a secret where it is JSON. */
export function shownBody(text: string): string {
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
}

function withoutSecrets(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(withoutSecrets);
  if (!isData(value)) return value;
  return Object.fromEntries(
    Object.entries(value).map(([name, inner]) => [
      name,
      typeof inner === "string" && secretNames.test(name) && !/cursor|next|page/i.test(name)
        ? hidden
        : withoutSecrets(inner),
    ]),
  );
}
