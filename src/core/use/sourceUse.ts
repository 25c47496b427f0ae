import { ownersOf, printCoordinate, type Coordinate } from "./coordinate.js";
import type { OffsetPlace } from "../problem/place.js";

/** The ways source uses something of an SDK. */
export type SourceUseKind =
  /** A function is called, or passed on. */
  | "calls"
  /** A type is named. */
  | "names"
  | "reads"
  /** A member is read, only to convert it to text. */
  | "shows"
  /** A member is read, only to compare it with another value. */
  | "compares"
  /** A member is read, only to sort values by it. */
  | "orders"
  /** A number is read, only to calculate with it or compare it with other numbers. */
  | "computes"
  /** A member is read and passed on with the name of its type. */
  | "passes"
  | "writes"
  /** An optional field is left out when the record is built. */
  | "omits"
  /** A record is built as a whole. */
  | "builds"
  /** A value is compared, or its type is distinguished. */
  | "matches"
  /** A value is distinguished by the name of its type. */
  | "tells"
  /** It is unknown which field is used, or whether the field is one of this record. */
  | "reaches";

/** One place where source uses something of an SDK. */
export interface SourceUse {
  /** The SDK, if there are several. */
  readonly sdk?: string;
  /**
   * The used part, with the SDK's own names: "listBerths", "Berth", "Berth.note", "Berth.note?" if it is left out,
   * "BerthStatus!" if a match must list all values, "Berth{}" if the record is built, "BerthStatus.free", "Berth.*" if
   * the field is unknown.
   */
  readonly coordinate: Coordinate;
  readonly kind: SourceUseKind;
  /** The reader also accepts null, as a safe call does. Null is nothing new there. */
  readonly takesNull?: boolean;
  /** It receives a value without a written type, such as `.free`. */
  readonly isUntyped?: boolean;
  /** The reader expects that it may be null, and does not compile if it may not. */
  readonly unwraps?: boolean;
  readonly place: OffsetPlace;
}

const asking: ReadonlySet<SourceUseKind> = new Set(["writes", "omits", "builds", "calls", "names", "matches", "tells"]);
const answering: ReadonlySet<SourceUseKind> = new Set([
  "reads",
  "shows",
  "compares",
  "orders",
  "computes",
  "passes",
  "matches",
  "tells",
  "builds",
  "omits",
  "calls",
  "names",
]);

/** The uses of an SDK by coordinate. */
export class SourceIndex {
  private readonly byCoordinate = new Map<Coordinate, SourceUse[]>();

  constructor(uses: readonly SourceUse[]) {
    for (const use of uses) {
      const known = this.byCoordinate.get(use.coordinate);
      if (known) known.push(use);
      else this.byCoordinate.set(use.coordinate, [use]);
    }
  }

  /**
   * Returns the uses of some coordinates that a change in one direction can affect.
   *
   * @param face "ask" for requests and "answer" for responses; a use that only reads does not concern requests
   */
  usesOf(coordinates: readonly Coordinate[], face: "ask" | "answer" | "operation"): SourceUse[] {
    const kinds = face === "ask" ? asking : face === "answer" ? answering : undefined;
    return coordinates
      .flatMap((coordinate) => this.byCoordinate.get(coordinate) ?? [])
      .filter(({ kind }) => kinds?.has(kind) ?? true);
  }

  /** Returns the places where one of some coordinates receives a value. */
  writesOf(coordinates: readonly Coordinate[]): SourceUse[] {
    return coordinates
      .flatMap((coordinate) => this.byCoordinate.get(coordinate) ?? [])
      .filter(({ kind }) => kind === "writes");
  }

  /**
   * Returns whether one of the coordinates may be used, or its record is used in a way that does not show the fields.
   */
  mayReach(coordinates: readonly Coordinate[]): boolean {
    return coordinates.some((each) => {
      if (this.byCoordinate.get(each)?.some(({ kind }) => kind === "reaches") === true) return true;
      return ownersOf(each).some((owner) => this.byCoordinate.has(printCoordinate(owner, "anyMember")));
    });
  }
}
