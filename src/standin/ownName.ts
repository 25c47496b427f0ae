/** Names of this machine that no other site can lead here: addresses in numbers, and names that are never looked up elsewhere. */
const ownName = /^(?:\[[0-9a-f:.]+\]|\d+\.\d+\.\d+\.\d+|(?:[\w-]+\.)*localhost|host\.docker\.internal)$/i;

/**
 * Whether a request was sent to this machine by a name of its own (RFC 9110, section 7.2). A name that somebody else made
 * lead here would let the pages of another site read what is answered.
 *
 * @param host the header `Host`; a program that leaves it out is no browser
 */
export function isOwnName(host: string | undefined): boolean {
  const name = (host ?? "").replace(/:\d+$/, "");
  return name === "" || ownName.test(name);
}
