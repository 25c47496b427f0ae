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
  /** What changed, as people name it: "GET /berths", "Berth.note", "Query.voyages(first:)". */
  readonly subject: string;
  /** One full sentence. */
  readonly message: string;
  readonly verdict: Verdict;
  /** What it means for each SDK, where there are several; the verdict is then that of the one that it hits hardest. */
  readonly sdks?: readonly ForSdk[];
  readonly before?: Place;
  readonly after?: Place;
  /** REST: labels of the old contract's operations that reach it. */
  readonly operations: readonly string[];
  /** How query documents and source depend on it; a use with one of these coordinates is hit. */
  readonly coordinates: readonly Coordinate[];
  /**
   * What calls the operations that answer it, in the SDK's own names, where the SDK reads all of an answer: a call whose
   * answer it cannot read fails in released apps, whatever the app would have used of it.
   */
  readonly callers?: readonly Coordinate[];
  /** GraphQL: uses for which the verdict is another one, by coordinate. */
  readonly verdictAt?: ReadonlyMap<Coordinate, Verdict>;
  /** GraphQL: the interfaces and unions of a type that an answer can now be. */
  readonly joins?: readonly string[];
  /** GraphQL: what may be selected of a new type that answers as the old one did: "name", "on Vessel". */
  readonly kept?: readonly string[];
  /** It is news only for source that uses it: nobody promised it. */
  readonly isUnpromised?: boolean;
  /** Source is spared that does nothing with the value but this. */
  readonly spares?: readonly SourceUseKind[];
  /** Source that would not compile is only at risk when it does nothing with the value but this. */
  readonly endangers?: readonly SourceUseKind[];
  /** Of source that reads it hits only what hands the value on as the type that it had. */
  readonly hitsNamedTypes?: boolean;
  /** It is about null alone: source that takes null as well is spared. */
  readonly isOfNull?: boolean;
  /** Source that takes it for granted that one of these may be null does not compile any more, by their coordinates. */
  readonly unwrapped?: readonly Coordinate[];
  /** Of source it hits only a match that names everything there was. */
  readonly hitsWholeMatches?: boolean;
  /** REST: source is hit only where it names this, for example the field that is gone. */
  readonly word?: string;
  readonly hint?: string;
}
