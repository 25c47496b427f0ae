/** A response of the stand-in server in place of the usual one, for testing how an app handles it. */
export interface Override {
  /** The status code of the response. The contract does not have to list it. */
  readonly status?: number;
  /** The delay of the response, in milliseconds. */
  readonly delay?: number;
  /** The number of items in lists. */
  readonly items?: number;
  /** The name of one of the contract's examples. */
  readonly example?: string;
}

/** The request header with an override for one request. */
export const overrideHeader = "rhema-play";

const longestDelay = 60_000;
const mostItems = 1000;

const readers: Readonly<Record<keyof Override, (text: string) => number | string | undefined>> = {
  status: (text) => whole(text, 200, 599),
  delay: (text) => whole(text, 0, longestDelay),
  items: (text) => whole(text, 0, mostItems),
  example: (text) => (text === "" ? undefined : text),
};

const expected: Readonly<Record<keyof Override, string>> = {
  status: "a status from 200 to 599",
  delay: `milliseconds up to ${String(longestDelay)}`,
  items: `a number up to ${String(mostItems)}`,
  example: "the name of an example",
};

/**
 * Reads "status=409, delay=800".
 *
 * @returns the override, or the error as a text
 */
export function readOverride(text: string): Override | string {
  const override: Record<string, number | string> = {};
  for (const part of text.split(",").map((each) => each.trim())) {
    if (part === "") continue;
    const at = part.indexOf("=");
    const key = (at < 0 ? part : part.slice(0, at)).trim();
    if (!isKey(key)) return `\`${key}\` is not a valid key. Use ${Object.keys(readers).join(", ")}`;
    const value = at < 0 ? undefined : readers[key](part.slice(at + 1).trim());
    if (value === undefined) return `\`${key}\` must be ${expected[key]}, for example \`status=409, delay=800\``;
    override[key] = value;
  }
  return override;
}

function isKey(key: string): key is keyof Override {
  return Object.hasOwn(readers, key);
}

function whole(text: string, least: number, most: number): number | undefined {
  const number = Number(text);
  return /^\d+$/.test(text) && number >= least && number <= most ? number : undefined;
}

/** An override for one operation, or for all. */
export interface StandingOverride {
  /** An operation's id, its label such as "GET /berths", or a field of Query, Mutation or Subscription; "*" for all. */
  readonly operation: string;
  readonly override: Override;
}

/**
 * Reads "reserveBerth: status=409". Without an operation, it applies to all.
 *
 * @returns the override, or the error as a text
 */
export function readStandingOverride(text: string): StandingOverride | string {
  const found = /^([^=]*?)\s*:\s*(?=\w+\s*=)(.*)$/s.exec(text);
  const override = readOverride(found?.[2] ?? text);
  return typeof override === "string" ? override : { operation: found?.[1]?.trim() ?? "*", override };
}

/** The overrides from the command line and the page, by operation. */
export class Overrides {
  private readonly byOperation = new Map<string, Override>();

  constructor(standing: readonly StandingOverride[] = []) {
    for (const { operation, override } of standing) this.set(operation, override);
  }

  set(operation: string, override: Override): void {
    if (Object.keys(override).length === 0) this.byOperation.delete(operation);
    else this.byOperation.set(operation, override);
  }

  entries(): [string, Override][] {
    return [...this.byOperation];
  }

  /**
   * Returns the override for a request. Its header comes first, then the operation's override, then the one for all.
   *
   * @param names the operation's names
   */
  for(names: readonly (string | undefined)[], header: string | null | undefined): Override | string {
    const own = header === null || header === undefined ? {} : readOverride(header);
    if (typeof own === "string") return own;
    const set = names.map((name) => (name === undefined ? undefined : this.byOperation.get(name)));
    return Object.assign({}, this.byOperation.get("*"), ...set.reverse(), own) as Override;
  }
}

/** Waits for the delay of an override. */
export async function waitFor({ delay = 0 }: Override): Promise<void> {
  if (delay > 0) await new Promise((resolve) => setTimeout(resolve, delay));
}
