/**
 * Names of this machine that no other site can use: numeric addresses, and names that are never looked up elsewhere.
 */
const ownName = /^(?:\[[0-9a-f:.]+\]|\d+\.\d+\.\d+\.\d+|(?:[\w-]+\.)*localhost|host\.docker\.internal)$/i;

/**
 * Returns whether a request was sent to this machine by one of its own names (RFC 9110, section 7.2). With another name
 * that resolves to this machine, pages of another site could read responses.
 *
 * @param host the header `Host`; a program that leaves it out is not a browser
 */
export function isOwnName(host: string | undefined): boolean {
  const name = (host ?? "").replace(/:\d+$/, "");
  return name === "" || ownName.test(name);
}
