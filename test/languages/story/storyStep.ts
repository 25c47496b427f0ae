import { readFileSync } from "node:fs";
import { join } from "node:path";
import { packageRoot } from "../../support/packageRoot.js";
import type { Data, RawAnswer } from "../vectors/vectorRow.js";

/** How a connection is made for a step. */
export interface StoryConnection {
  /** Credentials by the names of the contract's schemes. */
  readonly auth?: Readonly<Record<string, string>>;
  /** What is got for a credential, one after the other, each when the one before was rejected. */
  readonly renewed?: Readonly<Record<string, readonly string[]>>;
  readonly headers?: Readonly<Record<string, string>>;
  readonly timeoutMs?: number;
  /** Safe requests are sent again so many times, without much of a pause. */
  readonly retries?: number;
  /** Subscriptions go over a WebSocket. */
  readonly overSocket?: boolean;
}

/** A raw answer, a connection that ends without one, or null for what the stand-in says. */
export type Interrupt = RawAnswer | "broken" | null;

/** One thing that an app does with its SDK. */
export interface StoryStep {
  readonly why: string;
  readonly contract: string;
  /** The operation's id, or the query's name. */
  readonly call: string;
  /** All items of all pages are wanted. */
  readonly isPaged?: boolean;
  readonly given?: Readonly<Record<string, Data>>;
  readonly connection?: StoryConnection;
  /** So many items are taken of what goes on. */
  readonly takes?: number;
  /** The app gives up: before it begins, or after so many milliseconds. */
  readonly cancels?: "before" | number;
  /** What is answered to one request after the other instead of what the stand-in says. */
  readonly interrupts?: readonly Interrupt[];
  /** How it ends, so that a step that does something else is found: a failure's status, or how many requests there are. */
  readonly fails?: number | string;
  readonly requests?: number;
}

export interface Story {
  readonly about: string;
  /** What every language is told. */
  readonly settings: Readonly<Record<string, string | boolean>>;
  /** Paths beside those of the demo's REST contract, as YAML. */
  readonly paths: readonly string[];
  /** Definitions beside those of the demo's schema, and query documents by their file. */
  readonly definitions: readonly string[];
  readonly queries: Readonly<Record<string, string>>;
  readonly steps: readonly StoryStep[];
}

/** The story that every language's SDK plays. */
export function readStory(): Story {
  return JSON.parse(readFileSync(join(packageRoot, "test/languages/story/story.json"), "utf8")) as Story;
}
