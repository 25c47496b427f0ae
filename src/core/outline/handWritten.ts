import type { Place } from "../problem/place.js";

/** A part of the app's own code that an SDK has too. */
export interface HandWritten {
  readonly kind: "request" | "type" | "query";
  readonly contract: string;
  readonly place: Place;
  /** Its name: "GET /berths". */
  readonly what: string;
  /** The replacement in the SDK: "listBerths". */
  readonly instead: string;
  /** The module of the replacement, as the app imports it; absent if the SDK does not have it yet. */
  readonly from?: string;
}

/** An operation that may be the target of the app's own requests. */
export interface RequestedOperation {
  readonly contract: string;
  /** Its label: "GET /berths/{berthId}". */
  readonly label: string;
  readonly method: string;
  /** Its path, with parameters as "{}". */
  readonly path: string;
  /** The addresses of its servers, without a trailing slash; of a server without a host only the path. */
  readonly servers: readonly string[];
  readonly call: string;
}

/** Stands in an address for a part that is known only at run time. */
export const hole = "\u0000";

/**
 * Returns the operation of an address.
 *
 * @param address with `hole` for parts that are known only at run time
 * @param method in upper case
 * @returns undefined if the address leads elsewhere, or if it is unknown where it leads
 */
export function requestedOperation(
  address: string,
  method: string,
  operations: readonly RequestedOperation[],
): RequestedOperation | undefined {
  const found = operations.filter(
    (operation) =>
      operation.method.toLowerCase() === method.toLowerCase() &&
      pathsOf(address, operation.servers).some((path) => fits(path, operation.path)),
  );
  // `/berths/free` is not a berth with that name if there is an operation with that path.
  const fixed = (path: string): number => segmentsOf(path).filter((segment) => segment !== "{}").length;
  return found.sort((a, b) => fixed(b.path) - fixed(a.path))[0];
}

/** The possible paths of an address below a server of the contract. */
function pathsOf(address: string, servers: readonly string[]): string[] {
  const [whole = ""] = address.split(/[?#]/);
  const origin = /^(?:https?:)?\/\/[^/\0]+/i.exec(whole)?.[0];
  if (origin !== undefined)
    return servers.flatMap((server) => (whole.startsWith(`${server}/`) ? [whole.slice(server.length)] : []));
  // The part before the first slash is an address from elsewhere in the app.
  const behind = whole.startsWith(hole) ? whole.slice(hole.length) : whole;
  if (!behind.startsWith("/")) return [];
  const bases = servers.map((server) => server.replace(/^(?:https?:)?\/\/[^/]+/i, "")).filter((base) => base !== "");
  return [behind, ...bases.flatMap((base) => (behind.startsWith(`${base}/`) ? [behind.slice(base.length)] : []))];
}

/** Whether a path fits a template. A template of nothing but parameters fits too much to be a sign. */
function fits(path: string, template: string): boolean {
  const [given, wanted] = [segmentsOf(path), segmentsOf(template)];
  return (
    given.length === wanted.length &&
    wanted.some((segment) => segment !== "{}" && segment !== "") &&
    wanted.every((segment, at) => segmentFits(given[at] ?? "", segment))
  );
}

/** Whether a segment fits that of a template, which may have a parameter next to other characters: `{}.json`. */
function segmentFits(given: string, wanted: string): boolean {
  const parts = wanted.split("{}");
  const [first = ""] = parts;
  const last = parts.at(-1) ?? "";
  if (parts.length === 1) return given === wanted;
  return given.length > first.length + last.length && given.startsWith(first) && given.endsWith(last);
}

function segmentsOf(path: string): string[] {
  return path.replace(/\/$/, "").split("/").slice(1);
}
