import type { Release, BrokenReleases } from "./release.js";
import { inReportOrder } from "./impact.js";
import type { JudgedChange, ContractImpact } from "./judgedChange.js";
import { heavier } from "../verdict.js";

/** The effect of the current contract on one release. */
export interface ReleasedImpact {
  readonly release: Release;
  readonly impact: ContractImpact;
}

/** Returns whether a change breaks something that a release uses, or may use. */
export function breaksRelease({ use, accepted, verdict }: JudgedChange): boolean {
  return use !== "not used" && !accepted && verdict.apps === "breaking";
}

/**
 * Adds to each change all releases that it breaks, with the share of their users, and to each impact the largest share
 * of users with a refused query.
 */
export function withUsers(released: readonly ReleasedImpact[]): ReleasedImpact[] {
  const broken = new Map<string, Release[]>();
  for (const { release, impact } of released)
    for (const change of impact.changes)
      if (breaksRelease(change)) {
        const key = keyOf(impact, change);
        broken.set(key, [...(broken.get(key) ?? []), release]);
      }
  const shareOf = (contract: string, message: string): number =>
    released
      .filter(
        ({ impact }) => impact.contract === contract && impact.brokenQueries.some((each) => each.message === message),
      )
      .reduce((sum, { release }) => sum + (release.share ?? 0), 0);
  return released.map(({ release, impact }) => {
    const usersOf = (change: JudgedChange): BrokenReleases | undefined => {
      const releases = broken.get(keyOf(impact, change));
      return releases && together(releases);
    };
    const changes = impact.changes.map((change) => {
      const users = usersOf(change);
      return users ? { ...change, users } : change;
    });
    const refusedShare = Math.max(0, ...impact.brokenQueries.map(({ message }) => shareOf(impact.contract, message)));
    return { release, impact: { ...impact, changes, release, ...(refusedShare > 0 ? { refusedShare } : {}) } };
  });
}

/**
 * Merges the impacts on releases, for reports that show each change once: a change in several has the places of all.
 */
export function mergedReleases(released: readonly ReleasedImpact[]): ContractImpact[] {
  const contracts = [...new Set(released.map(({ impact }) => impact.contract))];
  return contracts.flatMap((contract) => {
    const own = released.filter(({ impact }) => impact.contract === contract);
    const [first] = own;
    if (!first) return [];
    if (own.length === 1) return [first.impact];
    const changes = new Map<string, JudgedChange>();
    for (const { impact } of own)
      for (const change of impact.changes) {
        const key = keyOf(impact, change);
        const known = changes.get(key);
        changes.set(key, known ? heavierUse(known, change) : change);
      }
    const refusals = own.flatMap(({ impact }) => impact.brokenQueries);
    return [
      {
        ...first.impact,
        from: `releases ${own.map(({ release }) => release.name).join(", ")}`,
        changes: inReportOrder([...changes.values()]),
        brokenQueries: [
          ...new Map(refusals.map((each) => [JSON.stringify([each.message, each.places]), each])).values(),
        ],
      },
    ];
  });
}

/** Merges one change of two releases: it is in use if one uses it, has the higher level, and has the places of both. */
function heavierUse(one: JudgedChange, other: JudgedChange): JudgedChange {
  const rank = { used: 2, "cannot tell": 1, "not used": 0 } as const;
  const [main, side] = rank[other.use] > rank[one.use] ? [other, one] : [one, other];
  const hits = [...main.hits, ...side.hits];
  return {
    ...main,
    verdict: { code: main.verdict.code, apps: heavier(main.verdict.apps, side.verdict.apps) },
    hits: [...new Map(hits.map((hit) => [JSON.stringify(hit.place), hit])).values()],
  };
}

/** The users of all releases that a change breaks. */
function together(releases: readonly Release[]): BrokenReleases {
  const shares = releases.flatMap(({ share }) => share ?? []);
  return {
    releases: releases.map(({ name }) => name),
    ...(shares.length > 0 ? { share: shares.reduce((sum, share) => sum + share, 0) } : {}),
  };
}

/** The releases without a break. */
export interface Served {
  /** The oldest release from which on nothing breaks; absent if the newest one breaks. */
  readonly from?: string;
  readonly newest: string;
  /** The share of users that no release covers; absent if no share is known. */
  readonly rest?: number;
}

/** Returns from which release on nothing breaks; undefined if no release is known. */
export function servedReleases(releases: readonly Release[], released: readonly ReleasedImpact[]): Served | undefined {
  const sorted = [...releases].sort((a, b) => a.name.localeCompare(b.name, "en", { numeric: true }));
  const newest = sorted.at(-1);
  if (!newest) return undefined;
  const isBroken = ({ name }: Release): boolean =>
    released.some(
      ({ release, impact }) =>
        release.name === name && (impact.changes.some(breaksRelease) || impact.brokenQueries.length > 0),
    );
  let from: string | undefined;
  for (const release of sorted.toReversed()) {
    if (isBroken(release)) break;
    from = release.name;
  }
  const shares = sorted.flatMap(({ share }) => share ?? []);
  return {
    ...(from === undefined ? {} : { from }),
    newest: newest.name,
    ...(shares.length === 0 ? {} : { rest: Math.max(0, 1 - shares.reduce((sum, share) => sum + share, 0)) }),
  };
}

/** The identity of a change, whichever release it is reported for. */
function keyOf({ contract }: ContractImpact, { code, face, subject, message }: JudgedChange): string {
  return JSON.stringify([contract, code, face, subject, message]);
}
