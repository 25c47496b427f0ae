import { printCoordinate, type Coordinate } from "../../use/coordinate.js";
import type { ContractNames } from "../../sdk/contractNames.js";
import type { RestCall } from "../../sdk/sdkPlan.js";

/**
 * The names that source can use of an operation, from all its calls: for the whole response, as a stream, page by page.
 */
export interface OperationNames {
  /** The functions that make the calls. */
  readonly calls: readonly Coordinate[];
  /** The names of its failures. */
  readonly failures: readonly Coordinate[];
  /** All names that belong to it. */
  readonly all: readonly Coordinate[];
  /** Returns the coordinates of an argument. */
  readonly argument: (argument: string) => readonly Coordinate[];
  /** Returns the coordinates of a response header. */
  readonly header: (header: string) => readonly Coordinate[];
}

/**
 * Returns the names of an operation.
 *
 * @param calls all calls of one operation
 */
export function operationNames(calls: readonly RestCall[], names: ContractNames): OperationNames {
  const all = calls.map((call) => names.call(call));
  return {
    calls: all.flatMap(({ call, allPages }) => [call, ...allPages]).map(named),
    failures: all.flatMap(({ failures }) => failures).map(named),
    all: all.flatMap((each) => each.all).map(named),
    argument: (argument) => all.map(({ argumentCoordinate }) => argumentCoordinate(argument)),
    header: (header) => all.map(({ headerCoordinate }) => headerCoordinate(header)),
  };
}

function named(name: string): Coordinate {
  return printCoordinate(name);
}
