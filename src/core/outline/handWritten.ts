import type { Place } from "../problem/place.js";

/** Something of the app's own that an SDK has too. */
export interface HandWritten {
  readonly kind: "request" | "type" | "query";
  readonly contract: string;
  readonly place: Place;
  /** What stands there: "GET /berths". */
  readonly what: string;
  /** What stands for it in the SDK: "listBerths". */
  readonly instead: string;
  /** The module that has it, as the app imports it; absent where the SDK does not have it yet. */
  readonly from?: string;
}

/** An operation that requests of the app's own may be. */
export interface RequestedOperation {
  readonly contract: string;
  /** As people know it: "GET /berths/{berthId}". */
  readonly label: string;
  readonly method: string;
  /** With its parameters as "{}". */
  readonly path: string;
  /** Where its servers are, without a trailing slash; of one without a host only the path. */
  readonly servers: readonly string[];
  readonly call: string;
}

/** What stands in an address for a part that only the running app knows. */
export const hole = "\u0000";

/**
 * The operation that an address leads to; undefined where it leads elsewhere, or nowhere that can be told.
 *
 * @param address with `hole` for what is put in when the app runs
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
  // `/berths/free` is no berth called so, where there is an operation of that path.
  const fixed = (path: string): number => segmentsOf(path).filter((segment) => segment !== "{}").length;
  return found.sort((a, b) => fixed(b.path) - fixed(a.path))[0];
}

/** The paths that an address can have behind a server of the contract. */
function pathsOf(address: string, servers: readonly string[]): string[] {
  const [whole = ""] = address.split(/[?#]/);
  const origin = /^(?:https?:)?\/\/[^/\0]+/i.exec(whole)?.[0];
  if (origin !== undefined)
    return servers.flatMap((server) => (whole.startsWith(`${server}/`) ? [whole.slice(server.length)] : []));
  // What stands before the first slash is an address that the app has elsewhere.
  const behind = whole.startsWith(hole) ? whole.slice(hole.length) : whole;
  if (!behind.startsWith("/")) return [];
  const bases = servers.map((server) => server.replace(/^(?:https?:)?\/\/[^/]+/i, "")).filter((base) => base !== "");
  return [behind, ...bases.flatMap((base) => (behind.startsWith(`${base}/`) ? [behind.slice(base.length)] : []))];
}

/** Whether a path is one of a template; one of nothing but parameters fits too much to say anything. */
function fits(path: string, template: string): boolean {
  const [given, wanted] = [segmentsOf(path), segmentsOf(template)];
  return (
    given.length === wanted.length &&
    wanted.some((segment) => segment !== "{}" && segment !== "") &&
    wanted.every((segment, at) => segmentFits(given[at] ?? "", segment))
  );
}

/** Whether a segment is one of a template, which may have a parameter beside other letters: `{}.json`. */
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
