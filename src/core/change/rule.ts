import type { Coordinate } from "../use/coordinate.js";
import type { SourceUseKind } from "../use/sourceUse.js";
import type { PointKind, Points } from "./compare/points.js";
import type { SdkFacts } from "./sdkFacts.js";
import type { Level, Verdict } from "./verdict.js";

/** The result of a rule at a point. */
export interface Finding {
  /** One full sentence. */
  readonly message: string;
  readonly verdict: Verdict;
  readonly hint?: string | undefined;
  /** Replaces the point's own. */
  readonly coordinates?: readonly Coordinate[];
  /** Replaces the point's own; null if source is affected whatever it names. */
  readonly word?: string | null | undefined;
  /** GraphQL: the interfaces and unions of a type that a response can now have. */
  readonly joins?: readonly string[] | undefined;
  /** It affects only source that uses it, because the contract never promised it. */
  readonly isUnpromised?: boolean | undefined;
  /** Source that only uses the value in one of these ways is not affected. */
  readonly spares?: readonly SourceUseKind[] | undefined;
  /** Source that would not compile is only at risk if it only uses the value in one of these ways. */
  readonly endangers?: readonly SourceUseKind[] | undefined;
  /** Of source that reads it, it affects only code that passes the value on with its old type. */
  readonly hitsNamedTypes?: boolean | undefined;
  /** It only concerns null. Source that also accepts null is not affected. */
  readonly isOfNull?: boolean | undefined;
  /** Source that expects that one of these may be null no longer compiles, by their coordinates. */
  readonly unwrapped?: readonly Coordinate[] | undefined;
  /** Of source, it affects only a match that lists all values. */
  readonly hitsWholeMatches?: boolean | undefined;
  /** GraphQL: the possible selections of a new type that give the same result as the old one. */
  readonly kept?: readonly string[] | undefined;
  /** Uses with another verdict, by coordinate. */
  readonly verdictAt?: ReadonlyMap<Coordinate, Verdict> | undefined;
}

/** What is true for every change of a rule. */
export interface Traits {
  /** Something is newly deprecated. */
  readonly isDeprecation?: true;
  /** One of several values, or types of values, was removed. Source that uses the owner may use another value. */
  readonly isOneOfSeveral?: true;
  /** Of query documents, it affects only those that contain the name of the type. */
  readonly hitsNames?: true;
}

/** A documented kind of change, and how it is found at one kind of point. */
export interface Rule<C extends string = string, K extends PointKind = PointKind> {
  readonly code: C;
  readonly at: K;
  readonly title: string;
  readonly example: string;
  /** The verdicts in words. */
  readonly words: Readonly<Record<"code" | "apps", string>>;
  readonly traits: Traits;
  find(point: Points[K], facts: SdkFacts): Finding | undefined;
}

/**
 * Declares a rule. The pattern is in `rules/`: one file each, and a row in `rules/index.ts`.
 *
 * @param at the kind of point
 * @param code the code of the change
 */
export function rule<K extends PointKind, C extends string>(
  at: K,
  code: C,
  {
    meaning,
    traits = {},
    find,
  }: {
    readonly meaning: {
      readonly title: string;
      readonly example: string;
      readonly code: Level | `${Level}${":" | ";" | "," | " "}${string}`;
      readonly apps: Level | `${Level}${":" | ";" | "," | " "}${string}`;
    };
    readonly traits?: Traits;
    readonly find: (point: Points[K], facts: SdkFacts) => Finding | undefined;
  },
): Rule<C, K> {
  const { title, example, code: onCode, apps } = meaning;
  return { code, at, title, example, words: { code: onCode, apps }, traits, find };
}
