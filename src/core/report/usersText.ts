import type { Served } from "../change/judge/releasedUsers.js";
import type { BrokenReleases } from "../change/judge/release.js";
import { listed } from "../text/listed.js";

const releasesNamed = 6;

/** Returns "breaks releases 1.0 and 1.1, 17 % of users". */
export function usersText({ releases, share }: BrokenReleases): string {
  const users = share === undefined ? "" : `, ${percentText(share)} of users`;
  return `breaks ${releases.length === 1 ? "release" : "releases"} ${listed(releases, releasesNamed)}${users}`;
}

/** Returns lines with the release from which on nothing breaks, and the share of users that no release covers. */
export function servedText({ from, newest, rest }: Served): string[] {
  const served =
    from === undefined
      ? `nothing breaks in: no release, not even the newest, ${newest}`
      : from === newest
        ? `nothing breaks in: the newest release, ${newest}`
        : `nothing breaks in: all releases from ${from} on`;
  return rest === undefined || rest < smallest
    ? [served]
    : [served, `unknown for the rest, ${percentText(rest)} of users`];
}

const smallest = 1e-6;

/** A fraction as a percentage: 0.125 is "12.5 %". */
function percentText(share: number): string {
  return `${String(Number((share * 100).toPrecision(3)))} %`;
}
