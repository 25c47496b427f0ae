import type { ContractNames } from "../../sdk/contractNames.js";
import type { RestCall } from "../../sdk/sdkPlan.js";

/** What source can name of an operation, by whichever of its calls: for the whole answer, as a stream, page by page. */
export interface OperationNames {
  /** What performs it. */
  readonly calls: readonly string[];
  /** What its failures are known by. */
  readonly failures: readonly string[];
  /** Everything that comes with it. */
  readonly all: readonly string[];
  /** How use of an argument is known. */
  readonly argument: (argument: string) => readonly string[];
  /** How use of a header that it answers is known. */
  readonly header: (header: string) => readonly string[];
}

/** @param calls all calls of one operation */
export function operationNames(calls: readonly RestCall[], names: ContractNames): OperationNames {
  const all = calls.map((call) => names.call(call));
  return {
    calls: all.flatMap(({ call, allPages }) => [call, ...allPages]),
    failures: all.flatMap(({ failures }) => failures),
    all: all.flatMap((each) => each.all),
    argument: (argument) => all.map(({ argumentCoordinate }) => argumentCoordinate(argument)),
    header: (header) => all.map(({ headerCoordinate }) => headerCoordinate(header)),
  };
}
