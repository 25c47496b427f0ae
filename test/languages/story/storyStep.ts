import { readFileSync } from "node:fs";
import { join } from "node:path";
import { packageRoot } from "../../support/packageRoot.js";
import type { Data, RawAnswer } from "../vectors/vectorRow.js";

/** The connection for a step. */
export interface StoryConnection {
  /** Credentials by the names of the contract's schemes. */
  readonly auth?: Readonly<Record<string, string>>;
  /** The values of a renewable credential, in order, each after the one before was rejected. */
  readonly renewed?: Readonly<Record<string, readonly string[]>>;
  readonly headers?: Readonly<Record<string, string>>;
  readonly timeoutMs?: number;
  /** The number of retries of safe requests, with a short pause. */
  readonly retries?: number;
  /** Whether subscriptions use a WebSocket. */
  readonly overSocket?: boolean;
}

/** A raw response, a connection that ends without one, or null for the stand-in server's response. */
export type Interrupt = RawAnswer | "broken" | null;

/** One thing that an app does with its SDK. */
export interface StoryStep {
  readonly why: string;
  readonly contract: string;
  /** The operation's id, or the query's name. */
  readonly call: string;
  /** Whether all items of all pages are wanted. */
  readonly isPaged?: boolean;
  readonly given?: Readonly<Record<string, Data>>;
  readonly connection?: StoryConnection;
  /** The number of items to take from a stream or from pages. */
  readonly takes?: number;
  /** The app cancels the call: before it begins, or after this many milliseconds. */
  readonly cancels?: "before" | number;
  /** The responses to the requests in order, in place of the stand-in server's. */
  readonly interrupts?: readonly Interrupt[];
  /**
   * The expected end, so that a step that does something else is found: a failure's status, or the number of requests.
   */
  readonly fails?: number | string;
  readonly requests?: number;
}

export interface Story {
  readonly about: string;
  /** The settings of every language. */
  readonly settings: Readonly<Record<string, string | boolean>>;
  /** Paths besides those of the demo's REST contract, as YAML. */
  readonly paths: readonly string[];
  /** Definitions besides those of the demo's schema, and query documents by their file. */
  readonly definitions: readonly string[];
  readonly queries: Readonly<Record<string, string>>;
  readonly steps: readonly StoryStep[];
}

/** The story that every language's SDK runs. */
export function readStory(): Story {
  return JSON.parse(readFileSync(join(packageRoot, "test/languages/story/story.json"), "utf8")) as Story;
}
