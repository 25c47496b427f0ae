/** What somebody wants to be answered instead of the usual, to see how an app takes it. */
export interface Wish {
  /** A status, documented or not. */
  readonly status?: number;
  /** How long the answer takes, in milliseconds. */
  readonly delay?: number;
  /** How many items lists hold. */
  readonly items?: number;
  /** The name of one of the contract's examples. */
  readonly example?: string;
}

/** The request header that carries a wish for one request. */
export const wishHeader = "rhema-play";

const longestDelay = 60_000;
const mostItems = 1000;

const readers: Readonly<Record<keyof Wish, (text: string) => number | string | undefined>> = {
  status: (text) => whole(text, 200, 599),
  delay: (text) => whole(text, 0, longestDelay),
  items: (text) => whole(text, 0, mostItems),
  example: (text) => (text === "" ? undefined : text),
};

const expected: Readonly<Record<keyof Wish, string>> = {
  status: "a status from 200 to 599",
  delay: `milliseconds up to ${String(longestDelay)}`,
  items: `a number up to ${String(mostItems)}`,
  example: "the name of an example",
};

/** Reads "status=409, delay=800"; a text says what is wrong with it. */
export function readWish(text: string): Wish | string {
  const wish: Record<string, number | string> = {};
  for (const part of text.split(",").map((each) => each.trim())) {
    if (part === "") continue;
    const at = part.indexOf("=");
    const key = (at < 0 ? part : part.slice(0, at)).trim();
    if (!isKey(key)) return `\`${key}\` is no wish; there are ${Object.keys(readers).join(", ")}`;
    const value = at < 0 ? undefined : readers[key](part.slice(at + 1).trim());
    if (value === undefined) return `\`${key}\` takes ${expected[key]}, for example \`status=409, delay=800\``;
    wish[key] = value;
  }
  return wish;
}

function isKey(key: string): key is keyof Wish {
  return Object.hasOwn(readers, key);
}

function whole(text: string, least: number, most: number): number | undefined {
  const number = Number(text);
  return /^\d+$/.test(text) && number >= least && number <= most ? number : undefined;
}

/** A wish for one operation, or for all. */
export interface StandingWish {
  /** An operation's id, its label as "GET /berths", or a field of Query, Mutation or Subscription; "*" for all. */
  readonly operation: string;
  readonly wish: Wish;
}

/** Reads "reserveBerth: status=409"; without an operation it holds for all. A text says what is wrong with it. */
export function readStandingWish(text: string): StandingWish | string {
  const found = /^([^=]*?)\s*:\s*(?=\w+\s*=)(.*)$/s.exec(text);
  const wish = readWish(found?.[2] ?? text);
  return typeof wish === "string" ? wish : { operation: found?.[1]?.trim() ?? "*", wish };
}

/** Wishes by operation, as the command line and the page set them. */
export class Wishes {
  private readonly byOperation = new Map<string, Wish>();

  constructor(standing: readonly StandingWish[] = []) {
    for (const { operation, wish } of standing) this.set(operation, wish);
  }

  set(operation: string, wish: Wish): void {
    if (Object.keys(wish).length === 0) this.byOperation.delete(operation);
    else this.byOperation.set(operation, wish);
  }

  entries(): [string, Wish][] {
    return [...this.byOperation];
  }

  /** The wish for a request: its own header first, then what was set for the operation, then for all. */
  for(names: readonly (string | undefined)[], header: string | null | undefined): Wish | string {
    const own = header === null || header === undefined ? {} : readWish(header);
    if (typeof own === "string") return own;
    const set = names.map((name) => (name === undefined ? undefined : this.byOperation.get(name)));
    return Object.assign({}, this.byOperation.get("*"), ...set.reverse(), own) as Wish;
  }
}

/** Waits as long as a wish says. */
export async function waitFor({ delay = 0 }: Wish): Promise<void> {
  if (delay > 0) await new Promise((resolve) => setTimeout(resolve, delay));
}
