import { memberOf, printCoordinate } from "../../../use/coordinate.js";
import type { ContractPlan, GraphqlCall, RestCall } from "../../../sdk/sdkPlan.js";
import type { CallNames, ContractNames } from "../../../sdk/contractNames.js";
import { argumentKey, typescriptNames, type TypescriptNames } from "./names.js";

/** Returns the names in a contract's part of an SDK. */
export function contractNaming(plan: ContractPlan): ContractNames {
  const names = typescriptNames(plan);
  return {
    connect: names.contract.connect,
    connectionCoordinate: (given) => memberOf(names.contract.options, given),
    types: names.types,
    call: (call) => callNaming(call, names),
    argument: argumentKey,
    clashes: names.clashes,
  };
}

function callNaming(call: RestCall | GraphqlCall, names: TypescriptNames): CallNames {
  if (!("arguments" in call)) {
    const { call: name, operation, variables, failure, isFailure } = names.graphql(call);
    return {
      call: name,
      allPages: [],
      failures: [failure, isFailure],
      all: [name, operation, variables, failure, isFailure],
      argumentCoordinate: (argument) => memberOf(variables, argument),
      headerCoordinate: () => printCoordinate(""),
    };
  }
  const { call: name, items, describedPages, args, failure, isFailure, headers, headersReader } = names.rest(call);
  const allPages = items === "" ? [] : [items, describedPages];
  return {
    call: name,
    ...(items === "" ? {} : { pages: items }),
    allPages,
    failures: [failure, isFailure],
    all: [name, ...allPages, args, failure, isFailure, headers, headersReader],
    argumentCoordinate: (argument) => memberOf(args, argument),
    headerCoordinate: (header) => memberOf(headers, header),
  };
}

/** Returns an SDK's names for the functions and types of a GraphQL operation, unless others want the same names. */
export function operationNames(operation: string): string[] {
  const call = operation.charAt(0).toLowerCase() + operation.slice(1);
  return [
    call,
    `${operation}Part`,
    `is${operation}Failure`,
    `${operation}Answer`,
    `${operation}Variables`,
    `${operation}Failure`,
  ];
}
