import { ownersOf, printCoordinate, type Coordinate } from "./coordinate.js";
import type { OffsetPlace } from "../problem/place.js";

/** How source depends on something of an SDK. */
export type SourceUseKind =
  /** A function is called, or handed on. */
  | "calls"
  /** A type is named. */
  | "names"
  | "reads"
  /** A member is read, and nothing is done with it but to make a text of it. */
  | "shows"
  /** A member is read, and only asked whether it equals another value. */
  | "compares"
  /** A member is read, and values are only put in order by it. */
  | "orders"
  /** A number is read, and only calculated with, or held against other numbers. */
  | "computes"
  /** A member is read, and handed on as what its type is called. */
  | "passes"
  | "writes"
  /** A field that may be left out is left out where the record is built. */
  | "omits"
  /** A record is built as a whole. */
  | "builds"
  /** A value is compared, or told apart. */
  | "matches"
  /** A value is told apart by the name of its type. */
  | "tells"
  /** Which field it is cannot be seen, or whether it is one of this record. */
  | "reaches";

/** One place where source depends on something of an SDK. */
export interface SourceUse {
  /** The SDK that it is of, where there are several. */
  readonly sdk?: string;
  /**
   * What it depends on, in the SDK's own names: "listBerths", "Berth", "Berth.note", "Berth.note?" where it is left
   * out, "BerthStatus!" where a match has to name all there is, "Berth{}" where the record is built, "BerthStatus.free", "Berth.*" where the field cannot be seen.
   */
  readonly coordinate: Coordinate;
  readonly kind: SourceUseKind;
  /** What reads it takes null as well, as a safe call does: null is nothing new there. */
  readonly takesNull?: boolean;
  /** It is given a value that does not say its type, as `.free` does not. */
  readonly isUntyped?: boolean;
  /** What reads it takes it for granted that it may be null, and does not compile where it may not. */
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

/** Uses of an SDK by what they depend on. */
export class SourceIndex {
  private readonly byCoordinate = new Map<Coordinate, SourceUse[]>();

  constructor(uses: readonly SourceUse[]) {
    for (const use of uses) {
      const known = this.byCoordinate.get(use.coordinate);
      if (known) known.push(use);
      else this.byCoordinate.set(use.coordinate, [use]);
    }
  }

  /** The uses of any of some coordinates that a change in one direction can hit: what is only read is not asked. */
  usesOf(coordinates: readonly Coordinate[], face: "ask" | "answer" | "operation"): SourceUse[] {
    const kinds = face === "ask" ? asking : face === "answer" ? answering : undefined;
    return coordinates
      .flatMap((coordinate) => this.byCoordinate.get(coordinate) ?? [])
      .filter(({ kind }) => kinds?.has(kind) ?? true);
  }

  /** Where one of some coordinates is given a value. */
  writesOf(coordinates: readonly Coordinate[]): SourceUse[] {
    return coordinates
      .flatMap((coordinate) => this.byCoordinate.get(coordinate) ?? [])
      .filter(({ kind }) => kind === "writes");
  }

  /** Whether one of the coordinates may be reached, or a record that it belongs to is in a way that does not show its fields. */
  mayReach(coordinates: readonly Coordinate[]): boolean {
    return coordinates.some((each) => {
      if (this.byCoordinate.get(each)?.some(({ kind }) => kind === "reaches") === true) return true;
      return ownersOf(each).some((owner) => this.byCoordinate.has(printCoordinate(owner, "anyMember")));
    });
  }
}
