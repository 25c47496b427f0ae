import { printCoordinate, type Coordinate } from "../../use/coordinate.js";
import type { ContractNames } from "../../sdk/contractNames.js";
import type { RestCall } from "../../sdk/sdkPlan.js";

/** What source can name of an operation, by whichever of its calls: for the whole answer, as a stream, page by page. */
export interface OperationNames {
  /** What performs it. */
  readonly calls: readonly Coordinate[];
  /** What its failures are known by. */
  readonly failures: readonly Coordinate[];
  /** Everything that comes with it. */
  readonly all: readonly Coordinate[];
  /** How use of an argument is known. */
  readonly argument: (argument: string) => readonly Coordinate[];
  /** How use of a header that it answers is known. */
  readonly header: (header: string) => readonly Coordinate[];
}

/** @param calls all calls of one operation */
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
