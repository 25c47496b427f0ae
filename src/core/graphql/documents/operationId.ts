/**
 * Returns the id of an operation for servers that accept ids instead of texts.
 *
 * @param digest SHA-256 of the operation's text, in hexadecimal
 */
export function operationId(digest: string): string {
  return `sha256:${digest}`;
}
