import type { CallOptions, Connection } from "./connection.js";

/**
 * The key of a cached response: the contract, the connection's `label`, the call and its arguments. All parts are
 * JSON, but the type does not say so: bindings that unwrap types deeply would never end.
 */
export type DescribedKey = readonly [contract: string, connection: unknown, call: string, ...more: unknown[]];

/** A part of a key: JSON that is the same for the same value, whatever the order of its fields. */
type KeyPart = null | boolean | number | string | readonly KeyPart[] | { readonly [name: string]: KeyPart };

/** What a cache passes to a request. */
export interface Asked {
  readonly signal?: AbortSignal | undefined;
}

/** A response in the form that caches can store: an empty one is null. */
export type Kept<Answer> = Answer extends undefined ? null : Answer;

/**
 * A call that reads, in the form that libraries for caching responses accept. The names of its members are theirs; it
 * imports none of them.
 */
export interface DescribedRead<Answer, Failure extends Error> {
  readonly queryKey: DescribedKey;
  /** Sends the request. Throws the failure of the call. */
  readonly queryFn: (asked: Asked) => Promise<Kept<Answer>>;
  /** Never set: carries the type of the failures. */
  readonly retryDelay?: (count: number, failure: Failure) => number;
}

/** A call that changes something. */
export interface DescribedChange<Args, Answer, Failure extends Error> {
  readonly mutationFn: (args: Args) => Promise<Kept<Answer>>;
  /** Never set: carries the type of the failures. */
  readonly retryDelay?: (count: number, failure: Failure) => number;
}

/** A call that responds item by item. */
export interface DescribedStream<Item, Failure extends Error> {
  readonly queryKey: DescribedKey;
  readonly follow: (asked: Asked) => AsyncIterable<Item>;
  /** Never set: carries the type of the failures. */
  readonly retryDelay?: (count: number, failure: Failure) => number;
}

/** All pages of a call, in the form that libraries for caching responses accept. */
export interface DescribedPages<Page, Place, Failure extends Error> {
  readonly queryKey: DescribedKey;
  /** Requests the page at a position. Throws the failure of the call. */
  readonly queryFn: (asked: Asked & { readonly pageParam: Place }) => Promise<Page>;
  /** The position of the first page. */
  readonly initialPageParam: Place;
  /** The position of the page after the last one; undefined if there is none. */
  readonly getNextPageParam: (
    last: Page,
    pages: readonly Page[],
    place: Place,
    places: readonly Place[],
  ) => Place | undefined;
  /** Never set: carries the type of the failures. */
  readonly retryDelay?: (count: number, failure: Failure) => number;
}

/** The parts of a call's key. */
export interface KeptAs {
  readonly call: string;
  readonly args: unknown;
}

/** A described call that reads: its key, and a function that sends it with the library's signal. */
export function describedRead<Answer, Failure extends Error>(
  connection: Connection,
  { ask, ...kept }: KeptAs & { readonly ask: (options: CallOptions) => Promise<Answer> },
): DescribedRead<Answer, Failure> {
  return {
    queryKey: describedKey(connection, kept),
    queryFn: async ({ signal }) => keptAnswer(await ask({ signal })),
  };
}

/** A described call whose response arrives item by item. */
export function describedStream<Item, Failure extends Error>(
  connection: Connection,
  { ask, ...kept }: KeptAs & { readonly ask: (options: CallOptions) => AsyncIterable<Item> },
): DescribedStream<Item, Failure> {
  return { queryKey: describedKey(connection, kept), follow: ({ signal }) => ask({ signal }) };
}

type Nothing = ReturnType<() => void>;

/** The argument of a change whose arguments are all optional. */
export type MaybeGiven<Args> = Args | Nothing;

/** The same argument, as the call takes it. */
type Given<Args> = Nothing extends Args ? Exclude<Args, Nothing> | undefined : Args;

/** A described call that changes data. */
export function describedChange<Args, Answer, Failure extends Error>(
  ask: (args: Given<Args>) => Promise<Answer>,
): DescribedChange<Args, Answer, Failure> {
  return { mutationFn: async (args) => keptAnswer(await ask(args as Given<Args>)) };
}

/** A response as a cache stores it: null instead of undefined, which caches refuse. */
export function keptAnswer<Answer>(answer: Answer): Kept<Answer> {
  return (answer === undefined ? null : answer) as Kept<Answer>;
}

/** The key of a call with its arguments. */
export function describedKey(connection: Connection, { call, args }: KeptAs): DescribedKey {
  return [connection.contract, ownPart(connection), call, keyPart(args ?? {})];
}

/** The common prefix of several keys: all keys of a contract, of a connection, or of one call. */
export function commonKey(contract: string, connection?: Connection, call?: string): readonly unknown[] {
  if (connection === undefined) return [contract];
  return call === undefined ? [contract, ownPart(connection)] : [contract, ownPart(connection), call];
}

/** Separates the responses of a connection from those of others. */
function ownPart(connection: Connection & { readonly standing?: unknown }): KeyPart {
  const { label, standing } = connection;
  return label === undefined && standing === undefined ? "" : keyPart({ label, standing });
}

/** Names of arguments whose values are credentials. Keys are shown in developer tools, and stored. */
const secretName =
  /authorization|cookie|token|secret|passw|passphrase|(?:api|access|private)[-_]?key|credential|session|signature|jwt|bearer|hmac|^(?:key|auth|sig|sid|otp|pwd|pass|assertion|code_?verifier)$/i;

/**
 * A value as part of a key. Bytes and values with the name of a credential are not readable in it.
 *
 * @param name the name of the field or argument
 */
export function keyPart(value: unknown, name = ""): KeyPart {
  if (secretName.test(name)) return hash(JSON.stringify(keyPart(value)));
  switch (typeof value) {
    case "string":
    case "boolean":
      return value;
    case "number":
      return Number.isFinite(value) ? value : String(value);
    case "object":
      return value === null ? null : objectPart(value);
    case "undefined":
      return null;
    default:
      // Integers of any size, and values that no call accepts.
      return String(value);
  }
}

function objectPart(value: object): KeyPart {
  if (Array.isArray(value)) return value.map((item) => keyPart(item));
  if (ArrayBuffer.isView(value)) return bytesPart(new Uint8Array(value.buffer, value.byteOffset, value.byteLength));
  if (value instanceof ArrayBuffer) return bytesPart(new Uint8Array(value));
  const { toJSON } = value as { readonly toJSON?: unknown };
  // Dates, and objects with a `toJSON` function.
  if (typeof toJSON === "function") return keyPart((toJSON as () => unknown).call(value));
  const usual = "[object ";
  // A contract can have a field of this name.
  const { toString } = value as { readonly toString?: unknown };
  const text = typeof toString === "function" ? (toString as () => string).call(value) : usual;
  if (!text.startsWith(usual)) return text;
  // The content of files and streams is unknown until they are read.
  if (Symbol.toStringTag in value) return `${text} ${String(numberOf(value))}`;
  const given = Object.entries(value).filter(([, inner]) => inner !== undefined);
  const sorted = given.sort(([a], [b]) => (a < b ? -1 : 1));
  return Object.fromEntries(sorted.map(([key, inner]) => [key, keyPart(inner, key)]));
}

const numbers = new WeakMap<object, number>();
let lastNumber = 0;

/** A number that is unique to an object. */
function numberOf(value: object): number {
  const number = numbers.get(value) ?? ++lastNumber;
  numbers.set(value, number);
  return number;
}

function bytesPart(bytes: Uint8Array): string {
  return `${String(bytes.length)} bytes ${hash(bytes)}`;
}

/** Sixteen digits from which a string or bytes cannot be reconstructed (FNV-1a, twice). */
function hash(of: string | Uint8Array): string {
  let [left, right] = [0x811c9dc5, 0x01000193];
  for (let at = 0; at < of.length; at++) {
    const each = typeof of === "string" ? of.charCodeAt(at) : (of[at] ?? 0);
    left = Math.imul(left ^ each, 0x01000193);
    right = Math.imul(right ^ each ^ (at & 0xff), 0x811c9dc5);
  }
  return [left, right].map((half) => (half >>> 0).toString(16).padStart(8, "0")).join("");
}
