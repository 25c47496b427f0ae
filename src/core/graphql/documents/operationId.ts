/**
 * The id by which a server knows an operation whose text it does not get.
 *
 * @param digest SHA-256 of the operation's text, in hexadecimal
 */
export function operationId(digest: string): string {
  return `sha256:${digest}`;
}
