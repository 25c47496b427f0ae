import type { Change } from "../change.js";
import type { ForSdk } from "./forSdk.js";
import { heavier } from "../verdict.js";

/** The changes of a contract for one SDK. */
export interface ChangesForSdk {
  readonly sdk: string;
  readonly changes: readonly Change[];
}

/**
 * Merges the changes of a contract for several SDKs: each once, with one verdict on source for each SDK. Its own
 * verdict is that of the SDK that is affected most.
 */
export function mergedForSdks(all: readonly ChangesForSdk[]): Change[] {
  const [only] = all;
  if (!only || all.length === 1) return [...(only?.changes ?? [])];
  const merged = new Map<string, Change & { readonly sdks: readonly ForSdk[] }>();
  for (const { sdk, changes } of all)
    for (const change of changes) {
      const key = JSON.stringify([change.code, change.face, change.subject, change.message]);
      const known = merged.get(key);
      const { verdict, coordinates, verdictAt = known?.verdictAt, callers, ...own } = change;
      const forSdk = { sdk, code: verdict.code, coordinates, ...(callers ? { callers } : {}) };
      const sdks = [...(known?.sdks ?? []), forSdk];
      merged.set(key, {
        ...(known ?? own),
        ...(verdictAt ? { verdictAt } : {}),
        verdict: known
          ? { code: heavier(known.verdict.code, verdict.code), apps: heavier(known.verdict.apps, verdict.apps) }
          : verdict,
        coordinates: [...new Set([...(known?.coordinates ?? []), ...coordinates])],
        sdks,
      });
    }
  return [...merged.values()];
}
