import type { Coordinate } from "../use/coordinate.js";
import type { NameClash } from "./nameScope.js";
import type { GraphqlCall, PlannedArgument, RestCall } from "./sdkPlan.js";

/**
 * The names that a language gives to one contract's part of an SDK, as far as code other than its printer needs them.
 */
export interface ContractNames {
  /** The function that creates a connection. */
  readonly connect: string;
  /** The coordinate of an option of the connection: "HarbourConnectionOptions.token". */
  readonly connectionCoordinate: (given: string) => Coordinate;
  /** The name of every planned type, by id. */
  readonly types: ReadonlyMap<string, string>;
  readonly call: (call: RestCall | GraphqlCall) => CallNames;
  /** The name of an argument of a call. */
  readonly argument: (argument: PlannedArgument) => string;
  /** Names that are different because others have the same one. */
  readonly clashes: readonly NameClash[];
}

/** The names of a call for source code. */
export interface CallNames {
  /** The function that makes the call. */
  readonly call: string;
  /** The function for all of its pages; absent if it has none. */
  readonly pages?: string;
  /** Every function for its pages, that one included. */
  readonly allPages: readonly string[];
  /** The names of its failures. */
  readonly failures: readonly string[];
  /** All names that belong to it, its own included. */
  readonly all: readonly string[];
  /** The coordinate of an argument: "ListBerthsArgs.since". */
  readonly argumentCoordinate: (argument: string) => Coordinate;
  /** The coordinate of a response header: "ListBerthsHeaders.link"; REST only. */
  readonly headerCoordinate: (header: string) => Coordinate;
}
