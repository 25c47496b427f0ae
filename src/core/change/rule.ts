import type { Coordinate } from "../use/coordinate.js";
import type { SourceUseKind } from "../use/sourceUse.js";
import type { PointKind, Points } from "./compare/points.js";
import type { SdkFacts } from "./sdkFacts.js";
import type { Level, Verdict } from "./verdict.js";

/** What a rule says about a point. */
export interface Finding {
  /** One full sentence. */
  readonly message: string;
  readonly verdict: Verdict;
  readonly hint?: string | undefined;
  /** Instead of the point's own. */
  readonly coordinates?: readonly Coordinate[];
  /** Instead of the point's own; null when source is hit whatever it names. */
  readonly word?: string | null | undefined;
  /** GraphQL: the interfaces and unions of a type that an answer can now be. */
  readonly joins?: readonly string[] | undefined;
  /** It is news only for source that uses it: nobody promised it. */
  readonly isUnpromised?: boolean | undefined;
  /** Source is spared that does nothing with the value but this. */
  readonly spares?: readonly SourceUseKind[] | undefined;
  /** Source that would not compile is only at risk when it does nothing with the value but this. */
  readonly endangers?: readonly SourceUseKind[] | undefined;
  /** Of source that reads it hits only what hands the value on as the type that it had. */
  readonly hitsNamedTypes?: boolean | undefined;
  /** It is about null alone: source that takes null as well is spared. */
  readonly isOfNull?: boolean | undefined;
  /** Source that takes it for granted that one of these may be null does not compile any more, by their coordinates. */
  readonly unwrapped?: readonly Coordinate[] | undefined;
  /** Of source it hits only a match that names everything there was. */
  readonly hitsWholeMatches?: boolean | undefined;
  /** GraphQL: what may be selected of a new type that answers as the old one did. */
  readonly kept?: readonly string[] | undefined;
  /** Uses for which the verdict is another one, by coordinate. */
  readonly verdictAt?: ReadonlyMap<Coordinate, Verdict> | undefined;
}

/** What is true of every change that a rule finds. */
export interface Traits {
  /** Something is deprecated that was not. */
  readonly isDeprecation?: true;
  /** One of several values, or kinds of value, is gone: source that uses what it was one of may use another one. */
  readonly isOneOfSeveral?: true;
  /** Of query documents it hits only those that say the name of the type. */
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

/** Declares a rule; see `rules/` for the pattern: one file each, and a row in `rules/index.ts`. */
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
