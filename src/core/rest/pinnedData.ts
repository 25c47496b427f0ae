import { isData, textMember, type Data } from "../text/parseData.js";
import { pinnedServers, withoutUserInfo } from "./readServers.js";
import { namesBelow, partsKey, valuesBelow } from "./linkDocuments.js";

/** The treatment of the members with special keys. */
const treatments = new Map<string, "gone" | "kept" | "names">([
  ...[...namesBelow, partsKey].map((key) => [key, "names"] as const),
  ...[...valuesBelow].map((key) => [key, "kept"] as const),
  ...["description", "summary", "externalDocs", "example", "examples"].map((key) => [key, "gone"] as const),
]);

function treatmentOf(key: string): "gone" | "kept" | "names" | undefined {
  const known = treatments.get(key);
  if (known !== undefined || !key.startsWith("x-")) return known;
  return key === "x-nullable" ? undefined : "gone";
}

/**
 * Returns a contract without the parts that no change depends on: descriptions, examples and extensions. The rest gives
 * the same types. It is meant to be written as JSON, which leaves out undefined members.
 */
export function pinnedData(data: Data): Data {
  const pinned = without(data, false, 0) as Data;
  const host = textMember(data, "host");
  return host?.includes("@") === true ? { ...pinned, host: withoutUserInfo(host) } : pinned;
}

const deepest = 1_000;

/**
 * Returns the same value if nothing is removed, which is most of a contract. Otherwise returns a copy with undefined in
 * those places.
 */
function without(value: unknown, names: boolean, depth: number): unknown {
  if (typeof value !== "object" || value === null) return value;
  // This part is nested so deep that it was skipped anyway, and could not be written.
  if (depth > deepest) return true;
  if (Array.isArray(value)) return withoutInList(value, depth);
  if (!isData(value)) return value;
  let copy: Record<string, unknown> | undefined;
  for (const key in value) {
    const each = value[key];
    // Only values that may contain a credential are rewritten.
    if (!names && key === "servers" && Array.isArray(each) && /[@?]/.test(JSON.stringify(each))) {
      copy ??= { ...value };
      copy[key] = pinnedServers(value);
      continue;
    }
    const treatment = names ? undefined : treatmentOf(key);
    const kept =
      treatment === "gone"
        ? undefined
        : treatment === "kept" || typeof each !== "object"
          ? each
          : without(each, treatment === "names", depth + 1);
    if (kept === each) continue;
    copy ??= { ...value };
    put(copy, key, kept);
  }
  return copy ?? value;
}

function put(data: Record<string, unknown>, key: string, value: unknown): void {
  if (key === "__proto__")
    Object.defineProperty(data, key, { value, enumerable: true, writable: true, configurable: true });
  else data[key] = value;
}

function withoutInList(list: readonly unknown[], depth: number): readonly unknown[] {
  let copy: unknown[] | undefined;
  for (let at = 0; at < list.length; at++) {
    const each = without(list[at], false, depth + 1);
    if (each === list[at]) continue;
    copy ??= [...list];
    copy[at] = each;
  }
  return copy ?? list;
}
