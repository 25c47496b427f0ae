import type { Coordinate } from "../../use/coordinate.js";
import type { Field, GraphqlRoot, Reference } from "../../contract/model.js";
import type { Ways } from "./memberNeeds.js";
import type { Place } from "../../problem/place.js";

/** One operation of the user's query documents, typed against a schema. */
export interface QueryOperation {
  readonly name: string;
  readonly root: GraphqlRoot;
  readonly variables: readonly Field[];
  /** Records and unions are inline, exactly as selected. Enums and scalars are named. */
  readonly answer: Reference;
  /** Sealed fragments only: the answer with all fields of its fragments. */
  readonly whole?: Reference;
  /** The text that is sent: the operation and its fragments, with `__typename` where narrowing needs it. */
  readonly text: string;
  readonly fragments: readonly string[];
  readonly description?: string;
  readonly place: Place;
}

/** The shape of a fragment, so that a component can declare the part of an answer that it takes. */
export interface QueryFragment {
  readonly name: string;
  readonly on: string;
  readonly shape: Reference;
  readonly fragments: readonly string[];
  readonly place: Place;
}

export type UseKind = "selects" | "passes" | "sends" | "names" | "matches";

/** One place where a query document uses a part of the schema. */
export interface QueryUse {
  /** "Voyage.eta", "Query.voyages(first:)", "VoyageStatus", "VoyageStatus.LATE". */
  readonly coordinate: Coordinate;
  readonly kind: UseKind;
  /** The operation or fragment that contains the place. */
  readonly owner: string;
  /** The operations that send the place: the owner, or those that spread it. */
  readonly operations: readonly string[];
  readonly place: Place;
  /** For a selection on an interface or union: the keys that all types have today, with the ways to them. */
  readonly keys?: readonly Ways[];
  /** For a field with fields: its selection, "name", "__typename", and the types of fragments, "on Vessel". */
  readonly selected?: readonly string[];
}

export interface QueryDocuments {
  readonly operations: readonly QueryOperation[];
  readonly fragments: readonly QueryFragment[];
  readonly uses: readonly QueryUse[];
}
