import type { Contract } from "../../contract/model.js";
import type { Place } from "../../problem/place.js";
import type { Problem } from "../../problem/problem.js";
import type { CompileError } from "../../use/compileError.js";
import type { Change } from "../change.js";
import type { BrokenReleases, Release } from "./release.js";
import type { JudgedForSdk } from "./forSdk.js";
import { worst } from "../verdict.js";

/** A place of this project that a change hits. */
export interface Hit {
  /** The operation, fragment or call that depends on it. */
  readonly owner: string;
  /** The operations that are hit through it. */
  readonly operations: readonly string[];
  readonly place: Place;
  /** It is in source, and `owner` is what it uses of the SDK. */
  readonly isInSource?: boolean;
  /** How: "selects", "passes", "sends", "matches", "names" or "calls". */
  readonly kind: string;
}

/** A change together with what it does to this project. */
export interface JudgedChange extends Change {
  /** What it does to the source that is written against each SDK, where there are several. */
  readonly sdks?: readonly JudgedForSdk[];
  readonly use: "used" | "not used" | "cannot tell";
  readonly hits: readonly Hit[];
  /** Why its level is another one than usual. */
  readonly leveled?: string;
  /** It is known and wanted, until a day (YYYY-MM-DD). */
  readonly accepted?: { readonly reason: string; readonly until: string };
  /** The released apps that it breaks; absent where it breaks none, or none is known. */
  readonly users?: BrokenReleases;
  /** What the compiler refuses because of it; absent when nobody asked the compiler. */
  readonly errors?: readonly CompileError[];
}

/** All changes of one contract, heaviest first. */
export interface ContractImpact {
  readonly contract: string;
  readonly from: string;
  readonly to: string;
  readonly changes: readonly JudgedChange[];
  /** Query documents that the new contract refuses. */
  readonly brokenQueries: readonly Problem[];
  /** It is about an app that is released, of which no code is judged. */
  readonly isReleased?: boolean;
  /** The app that is released, where it is one. */
  readonly release?: Release;
  /** The share of users who have a release of which the query is refused that most of them send. */
  readonly refusedShare?: number;
  /** Both sides as they were read, for reports that show shapes. */
  readonly contracts?: { readonly before: Contract; readonly after: Contract };
}

/** Whether a change breaks something this project uses, or may use. */
export function breaksProject(change: JudgedChange): boolean {
  return change.use !== "not used" && !change.accepted && worst(change.verdict) === "breaking";
}
