import type { Contract } from "../../contract/model.js";
import type { Place } from "../../problem/place.js";
import type { Problem } from "../../problem/problem.js";
import type { CompileError } from "../../use/compileError.js";
import type { Change } from "../change.js";
import type { BrokenReleases, Release } from "./release.js";
import type { JudgedForSdk } from "./forSdk.js";
import { worst } from "../verdict.js";

/** A place of this project that a change affects. */
export interface Hit {
  /** The operation, fragment or call with the place. */
  readonly owner: string;
  /** The operations that are affected through it. */
  readonly operations: readonly string[];
  readonly place: Place;
  /** Whether it is in source. `owner` is then the used part of the SDK. */
  readonly isInSource?: boolean;
  /** The kind of use: "selects", "passes", "sends", "matches", "names" or "calls". */
  readonly kind: string;
}

/** A change together with its effect on this project. */
export interface JudgedChange extends Change {
  /** The effect on the source for each SDK, if there are several. */
  readonly sdks?: readonly JudgedForSdk[];
  readonly use: "used" | "not used" | "cannot tell";
  readonly hits: readonly Hit[];
  /** Why it has another level than the default. */
  readonly leveled?: string;
  /** The reason why it is accepted, until a date (YYYY-MM-DD). */
  readonly accepted?: { readonly reason: string; readonly until: string };
  /** The released apps that it breaks; absent if there are none or none are known. */
  readonly users?: BrokenReleases;
  /** The compile errors that it causes; absent if the compiler did not run. */
  readonly errors?: readonly CompileError[];
}

/** All changes of one contract, the highest level first. */
export interface ContractImpact {
  readonly contract: string;
  readonly from: string;
  readonly to: string;
  readonly changes: readonly JudgedChange[];
  /** The query documents that the new contract refuses. */
  readonly brokenQueries: readonly Problem[];
  /** Whether it is about a released app, for which no code is rated. */
  readonly isReleased?: boolean;
  /** The released app, if it is about one. */
  readonly release?: Release;
  /** The share of users with a release in which the query is refused, for the query with the largest share. */
  readonly refusedShare?: number;
  /** Both versions of the contract, for reports that show shapes. */
  readonly contracts?: { readonly before: Contract; readonly after: Contract };
}

/** Returns whether a change breaks something that this project uses, or may use. */
export function breaksProject(change: JudgedChange): boolean {
  return change.use !== "not used" && !change.accepted && worst(change.verdict) === "breaking";
}
