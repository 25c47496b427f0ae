/** Names of headers, parameters and members whose values are credentials. */
const secretNames =
  /authorization|cookie|token|secret|passw|passphrase|api[-_]?key|access[-_]?key|private[-_]?key|credential|session|signature|jwt|bearer|hmac|^x-.*-key$|^(?:key|auth|sig|sid|otp|pwd|pass|assertion|code_verifier)$/i;
const hiddenWord = "(hidden)";

/** Returns whether a header, parameter or member with this name is a credential. */
export function isSecretName(name: string): boolean {
  return secretNames.test(name);
}

/**
 * Returns a text without the credentials that its structure shows, such as those in an address.
 *
 * @param text text of any kind
 */
export function hideSecrets(text: string): string {
  return replaceSecrets(text, () => hiddenWord, none);
}

/** Returns the same text with asterisks for credentials, so that all columns stay the same. */
export function maskSecrets(text: string): string {
  return replaceSecrets(text, (secret) => "*".repeat(secret.length), none);
}

/** Returns an address, or its template, without the credentials before its host and in its query. */
export function publicAddress(text: string): string {
  const address = text.includes("@") ? text.replace(userInfo, "$1") : text;
  const at = address.indexOf("?");
  if (at < 0) return address;
  const pairs = address.slice(at + 1).split("&");
  const kept = pairs.filter((each) => !isSecretName(decoded(each.replace(/=.*$/s, ""))));
  return address.slice(0, at) + (kept.length === 0 ? "" : `?${kept.join("&")}`);
}

/**
 * Returns the header for the user and password before the host of an address (RFC 7617, section 2). Platforms refuse to
 * fetch such addresses.
 *
 * @returns an empty object if the address has neither
 */
export function credentialOf({ username, password }: URL): Record<string, string> {
  if (username === "" && password === "") return {};
  const bytes = new TextEncoder().encode(`${decoded(username)}:${decoded(password)}`);
  return { authorization: `Basic ${btoa(String.fromCharCode(...bytes))}` };
}

const none: ReadonlySet<string> = new Set();

/** The part before the host of an address (RFC 3986, section 3.2.1). */
const userInfo = /(:\/\/)[^\s/?#"'`<>\\\u001b]*@/g;
const pair = /([?&;#])([^\s=&;#?"'`<>\\\u001b]{1,80})=([^\s&#"'`<>\\)\]\u001b]+)/g;
const schemed = /\b(Bearer|Basic|Digest|Token|ApiKey)(\s+|%20|\+)([A-Za-z0-9._~+/=-]{8,4000})/gi;
const schemeName = /\b(?:Bearer|Basic|Digest|Token|ApiKey)(?:\s|%20|\+)/i;
/** A JSON web token (RFC 7519, section 3.1). */
const webToken = /\beyJ[A-Za-z0-9_-]{6,4000}\.[A-Za-z0-9_-]{4,4000}(?:\.[A-Za-z0-9_-]{0,4000})?/g;
/** A placeholder for a value from the environment or an argument. */
const placeholder = /^(?:(?::|\$?\{[^{}:]*\}?)+|\(hidden\)?|%28hidden%29)$/;

function replaceSecrets(text: string, replacement: (secret: string) => string, names: ReadonlySet<string>): string {
  let safe = text;
  if (safe.includes("@"))
    safe = safe.replace(userInfo, (whole) => {
      const secret = whole.slice("://".length, -1);
      return secret === "" || placeholder.test(secret) ? whole : `://${replacement(secret)}@`;
    });
  if (safe.includes("="))
    safe = safe.replace(pair, (whole, before: string, name: string, value: string) =>
      (isSecretName(decoded(name)) || names.has(decoded(name))) && !placeholder.test(value)
        ? `${before}${name}=${replacement(value)}`
        : whole,
    );
  if (safe.includes("eyJ")) safe = safe.replace(webToken, replacement);
  // A search for what is rare costs a fraction of replacing it.
  if (!schemeName.test(safe)) return safe;
  // Words such as "Basic authentication" are not credentials: a credential contains a digit, or is long.
  return safe.replace(schemed, (whole, scheme: string, space: string, value: string) =>
    /\d/.test(value) || value.length >= 24 ? `${scheme}${space}${replacement(value)}` : whole,
  );
}

function decoded(name: string): string {
  try {
    return decodeURIComponent(name);
  } catch {
    return name;
  }
}

/** User and password of a basic credential (RFC 7617, section 2); "" if it is not one. */
function decodedBasic(text: string): string {
  try {
    return atob(text);
  } catch {
    return "";
  }
}

/** The credentials of a run, and the names of others. Every output goes through `hide`. */
export class Secrets {
  private readonly values = new Set<string>();
  private readonly names = new Set<string>();

  /** Adds a credential and its parts: the text after the scheme, each cookie, user and password. */
  learn(secret: string): void {
    const parts = [secret, ...secret.split(/[\s;,]+/).map((part) => part.replace(/^[\w.-]+=/, ""))];
    const [, basic] = /^basic\s+([\w+/=-]+)$/i.exec(secret) ?? [];
    if (basic !== undefined) parts.push(...decodedBasic(basic).split(":"));
    for (const part of parts) {
      // A short or plain word occurs in half of all output, and reveals nothing.
      if (part.length < 6 || (part.length < 12 && /^[a-z]+$/i.test(part)) || part.includes("${")) continue;
      this.values.add(part);
      this.values.add(encodeURIComponent(part));
      this.values.add(JSON.stringify(part).slice(1, -1));
      // As reports in Markdown escape it.
      this.values.add(part.replace(/[\\`*_[\]<>|#@]/g, "\\$&"));
    }
  }

  /** Adds the credentials in headers that are sent. */
  learnHeaders(headers: Iterable<readonly [string, string]>): void {
    for (const [name, value] of headers) if (isSecretName(name)) this.learn(value);
  }

  /** Adds the credentials in an address. */
  learnAddress({ username, password, searchParams }: URL): void {
    for (const part of [username, password]) if (part !== "") this.learn(decoded(part));
    for (const [name, value] of searchParams) if (isSecretName(name)) this.learn(value);
  }

  /** Adds a query parameter that a contract declares as a credential. */
  learnName(name: string): void {
    this.names.add(name);
  }

  /** Returns a text without any known credential. */
  hide(text: string): string {
    let safe = replaceSecrets(text, () => hiddenWord, this.names);
    const longestFirst = [...this.values].sort((a, b) => b.length - a.length);
    for (const value of longestFirst) if (safe.includes(value)) safe = safe.replaceAll(value, hiddenWord);
    return safe;
  }
}
