import type { Coordinate } from "../use/coordinate.js";
import type { NameClash } from "./nameScope.js";
import type { GraphqlCall, PlannedArgument, RestCall } from "./sdkPlan.js";

/** The identifiers that a language gives to one contract's part of an SDK, as far as others than its printer need them. */
export interface ContractNames {
  /** What makes a connection. */
  readonly connect: string;
  /** How it is known that source gives a connection something: "HarbourConnectionOptions.token". */
  readonly connectionCoordinate: (given: string) => Coordinate;
  /** Of every planned type, by id. */
  readonly types: ReadonlyMap<string, string>;
  readonly call: (call: RestCall | GraphqlCall) => CallNames;
  /** What an argument of a call is given by. */
  readonly argument: (argument: PlannedArgument) => string;
  /** Names that are not what they would be if others did not want the same. */
  readonly clashes: readonly NameClash[];
}

/** What source can name of a call. */
export interface CallNames {
  /** What performs it. */
  readonly call: string;
  /** What goes through all of its pages; absent where it has none. */
  readonly pages?: string;
  /** Everything that goes through its pages, that included. */
  readonly allPages: readonly string[];
  /** What its failures are known by. */
  readonly failures: readonly string[];
  /** Everything that comes with it, itself included. */
  readonly all: readonly string[];
  /** How use of an argument is known: "ListBerthsArgs.since". */
  readonly argumentCoordinate: (argument: string) => Coordinate;
  /** How use of a header that it reads is known: "ListBerthsHeaders.link"; REST only. */
  readonly headerCoordinate: (header: string) => Coordinate;
}
