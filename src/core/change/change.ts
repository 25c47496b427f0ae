import type { Coordinate } from "../use/coordinate.js";
import type { SourceUseKind } from "../use/sourceUse.js";
import type { Place } from "../problem/place.js";
import type { ChangeCode } from "./changeCodes.js";
import type { ChangeFace, PointKind } from "./compare/points.js";
import type { Traits } from "./rule.js";
import type { ForSdk } from "./judge/forSdk.js";
import type { Verdict } from "./verdict.js";

/** One difference between two contracts. */
export interface Change extends Traits {
  readonly code: ChangeCode;
  /** The kind of place that it is at. */
  readonly at: PointKind;
  readonly face: ChangeFace;
  /** The part that changed, with its name for people: "GET /berths", "Berth.note", "Query.voyages(first:)". */
  readonly subject: string;
  /** One full sentence. */
  readonly message: string;
  readonly verdict: Verdict;
  /** The effect on each SDK, if there are several. The verdict is then that of the SDK that is affected most. */
  readonly sdks?: readonly ForSdk[];
  readonly before?: Place;
  readonly after?: Place;
  /** REST: the labels of the old contract's operations that use it. */
  readonly operations: readonly string[];
  /** The coordinates of its uses. A query document or source with one of them is affected. */
  readonly coordinates: readonly Coordinate[];
  /**
   * The functions of the operations whose response contains it, in the SDK's own names, if the SDK reads whole
   * responses. A call whose response cannot be read fails in released apps, whichever part the app uses.
   */
  readonly callers?: readonly Coordinate[];
  /** GraphQL: uses with another verdict, by coordinate. */
  readonly verdictAt?: ReadonlyMap<Coordinate, Verdict>;
  /** GraphQL: the interfaces and unions of a type that a response can now have. */
  readonly joins?: readonly string[];
  /** GraphQL: the possible selections of a new type that give the same result as the old one: "name", "on Vessel". */
  readonly kept?: readonly string[];
  /** It affects only source that uses it, because the contract never promised it. */
  readonly isUnpromised?: boolean;
  /** Source that only uses the value in one of these ways is not affected. */
  readonly spares?: readonly SourceUseKind[];
  /** Source that would not compile is only at risk if it only uses the value in one of these ways. */
  readonly endangers?: readonly SourceUseKind[];
  /** Of source that reads it, it affects only code that passes the value on with its old type. */
  readonly hitsNamedTypes?: boolean;
  /** It only concerns null. Source that also accepts null is not affected. */
  readonly isOfNull?: boolean;
  /** Source that expects that one of these may be null no longer compiles, by their coordinates. */
  readonly unwrapped?: readonly Coordinate[];
  /** Of source, it affects only a match that lists all values. */
  readonly hitsWholeMatches?: boolean;
  /** REST: source is affected only if it contains this name, for example that of the removed field. */
  readonly word?: string;
  readonly hint?: string;
}
