import type { Coordinate } from "../../use/coordinate.js";
import type { Field, GraphqlRoot, Reference } from "../../contract/model.js";
import type { Ways } from "./memberNeeds.js";
import type { Place } from "../../problem/place.js";

/** One operation of the user's query documents, typed against a schema. */
export interface QueryOperation {
  readonly name: string;
  readonly root: GraphqlRoot;
  readonly variables: readonly Field[];
  /** Inline records and unions, exactly as selected; enums and scalars are named. */
  readonly answer: Reference;
  /** Sealed fragments only: the answer with everything in it that they hide. */
  readonly whole?: Reference;
  /** What is sent: the operation and the fragments it uses, `__typename` added where narrowing needs it. */
  readonly text: string;
  readonly fragments: readonly string[];
  readonly description?: string;
  readonly place: Place;
}

/** A fragment's own shape, so that a component can say which part of an answer it takes. */
export interface QueryFragment {
  readonly name: string;
  readonly on: string;
  readonly shape: Reference;
  readonly fragments: readonly string[];
  readonly place: Place;
}

export type UseKind = "selects" | "passes" | "sends" | "names" | "matches";

/** One place where a query document depends on something of the schema. */
export interface QueryUse {
  /** "Voyage.eta", "Query.voyages(first:)", "VoyageStatus", "VoyageStatus.LATE". */
  readonly coordinate: Coordinate;
  readonly kind: UseKind;
  /** Name of the operation or fragment that holds the place. */
  readonly owner: string;
  /** The operations that send the place: the owner, or those that spread it. */
  readonly operations: readonly string[];
  readonly place: Place;
  /** Of a selection on an interface or union: the keys that all types answer today, by the ways to them. */
  readonly keys?: readonly Ways[];
  /** Of a field that has fields: what is selected of it, "name", "__typename", and the types that fragments are on, "on Vessel". */
  readonly selected?: readonly string[];
}

export interface QueryDocuments {
  readonly operations: readonly QueryOperation[];
  readonly fragments: readonly QueryFragment[];
  readonly uses: readonly QueryUse[];
}
